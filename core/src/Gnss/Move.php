<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** A receiver's way from one place to the next: last epoch at the one, first at the other, and how far. Seconds; metres. */
final readonly class Move
{
    /** @param array{float, float, float} $shift east, north, up */
    public function __construct(public float $from, public float $to, public array $shift, public float $confidence)
    {
    }
}
