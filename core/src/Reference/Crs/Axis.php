<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

/** One axis as the registry lists it: abbreviation and the direction it grows in. */
final readonly class Axis
{
    public function __construct(public string $abbreviation, public string $direction)
    {
    }
}
