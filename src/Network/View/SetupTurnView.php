<?php

declare(strict_types=1);

namespace App\Network\View;

/** How a set-up goes with other control: shift in metres, rotation clockwise in degrees, scale in parts per million. */
final readonly class SetupTurnView
{
    public function __construct(
        public string $station,
        public float $e,
        public float $n,
        public float $h,
        public float $rotation,
        public float $scale,
        public int $targets,
    ) {
    }
}
