<?php

declare(strict_types=1);

namespace Mensura\Traverse;

/** A station of a traverse with what was measured there: degrees and metres. */
final readonly class Leg
{
    /**
     * @param ?float $angle    clockwise from the back target to the fore target
     * @param ?float $distance horizontal, to the next station; null at the last
     */
    public function __construct(public string $id, public ?float $angle, public ?float $distance)
    {
    }
}
