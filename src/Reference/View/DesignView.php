<?php

declare(strict_types=1);

namespace App\Reference\View;

/**
 * A proposed low-distortion system: parts per million over the extent, positive where grid distances are longer than
 * those on the ground.
 */
final readonly class DesignView
{
    /** @param list<array{e: float, n: float, ppm: float}> $samples in the project's coordinates */
    public function __construct(
        public string $datum,
        public string $method,
        public float $scale,
        public float $originLat,
        public float $originLon,
        public float $min,
        public float $max,
        public float $mean,
        public string $otherMethod,
        public float $otherMin,
        public float $otherMax,
        public ?float $projectMin,
        public ?float $projectMax,
        public string $wkt,
        public array $samples,
        public ?int $id,
    ) {
    }
}
