<?php

declare(strict_types=1);

namespace Mensura\Reference\Crs;

/** A projection's method and parameters: EPSG method code, and values by EPSG parameter code in radians, metres and plain ratios. */
final readonly class Conversion
{
    /** @param array<int, float> $values */
    public function __construct(public int $method, public array $values, public string $name = '')
    {
    }
}
