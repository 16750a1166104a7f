<?php

declare(strict_types=1);

namespace App\Intake\View;

/** A position for the sketch, metres. */
final readonly class PlacedPoint
{
    public function __construct(
        public string $name,
        public float $e,
        public float $n,
        public bool $known,
    ) {
    }
}
