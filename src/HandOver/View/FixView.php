<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** What the simulated rover measured at a place, and how it lies to the design. Metres; degrees from grid north. */
final readonly class FixView
{
    /**
     * @param ?float $design   height of the surface there
     * @param ?float $above    the design; below is negative
     * @param ?array{distance: float, bearing: float, forward: float, right: float, fill: ?float} $point to the point to be set out
     * @param ?array{station: float, offset: float, e: float, n: float, fill: ?float, beyond: bool} $line beside the line
     */
    public function __construct(
        public float $e,
        public float $n,
        public float $h,
        public float $sd,
        public ?float $design,
        public ?float $above,
        public ?array $point,
        public ?array $line,
    ) {
    }
}
