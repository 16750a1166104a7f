<?php

declare(strict_types=1);

namespace App\Reference\View;

/** A definition tried out: its names, and the grid place of a known point. Convergence in degrees, distortion in parts per million. */
final readonly class TriedView
{
    public function __construct(
        public string $name,
        public string $datum,
        public string $wkt,
        public string $proj,
        public ?float $e,
        public ?float $n,
        public ?float $backLat,
        public ?float $backLon,
        public ?float $convergence,
        public ?float $scale,
        public string $problem,
    ) {
    }
}
