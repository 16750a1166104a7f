<?php

declare(strict_types=1);

namespace App\Checks\View;

/** Differences in one coordinate, e, n or h. Metres. */
final readonly class AxisView
{
    public function __construct(
        public string $axis, public int $count, public float $mean, public float $rms, public ?float $sd, public float $min,
        public float $max,
    ) {
    }
}
