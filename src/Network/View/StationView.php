<?php

declare(strict_types=1);

namespace App\Network\View;

/** An adjusted station; metres, ellipse at the run's confidence, bearing in degrees. */
final readonly class StationView
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
        public string $held,
        public bool $control,
        public ?float $moveE,
        public ?float $moveN,
        public ?float $moveH,
    ) {
    }
}
