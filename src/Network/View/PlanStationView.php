<?php

declare(strict_types=1);

namespace App\Network\View;

/** A station as precise as it will be: metres, bearing in degrees. */
final readonly class PlanStationView
{
    public function __construct(
        public string $name,
        public float $e,
        public float $n,
        public float $h,
        public float $sdE,
        public float $sdN,
        public float $sdH,
        public float $semiMajor,
        public float $semiMinor,
        public float $bearing,
        public bool $planned,
    ) {
    }
}
