<?php

declare(strict_types=1);

namespace App\Network\View;

/** A mark placed from a set-up: metres; against what the project knows of it, where it knows it. */
final readonly class PlacedView
{
    public function __construct(
        public string $name,
        public float $e,
        public float $n,
        public ?float $h,
        public ?float $sdE,
        public ?float $sdN,
        public ?float $sdH,
        public ?float $offE,
        public ?float $offN,
        public ?float $offH,
    ) {
    }
}
