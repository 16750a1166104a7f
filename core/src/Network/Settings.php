<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * How a network is adjusted. Angular standard deviations in degrees, lengths in metres, distances as constant and parts per million.
 */
final readonly class Settings
{
    /**
     * @param array{float, float} $distanceSd constant (m), ppm
     */
    public function __construct(
        public float $confidence = 0.95,
        public int $maxIterations = 15,
        public float $refraction = 0.13,
        public ?float $directionSd = null,
        public ?float $zenithSd = null,
        public ?float $azimuthSd = null,
        public ?float $angleSd = null,
        public ?array $distanceSd = null,
        public float $instrumentCentring = 0.0,
        public float $targetCentring = 0.0,
        public float $heightCentring = 0.0,
        public bool $scaleByVarianceFactor = false,
    ) {
    }
}
