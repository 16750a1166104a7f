<?php

declare(strict_types=1);

namespace App\Network\View;

/**
 * A station of a traverse. Degrees and metres; angle clockwise from the back to the fore target, distance on the grid to the
 * next station, the balanced azimuth of that leg; place by the compass rule, and by least squares with its precision.
 */
final readonly class TraverseStationView
{
    public function __construct(
        public string $name,
        public ?float $angle,
        public ?float $azimuth,
        public ?float $distance,
        public ?float $thereLessBack,
        public ?float $e,
        public ?float $n,
        public ?float $rigorousE,
        public ?float $rigorousN,
        public ?float $sdE,
        public ?float $sdN,
    ) {
    }

    public static function named(string $name): self
    {
        return new self($name, null, null, null, null, null, null, null, null, null, null);
    }
}
