<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A-priori precision: arc seconds, metres, parts per million. */
final readonly class SettingsRequest
{
    /** @param array<string, float> $factors of the standard deviations of groups */
    public function __construct(
        #[Assert\Range(min: 0.01, max: 3600)]
        public float $directionSd,
        #[Assert\Range(min: 0.01, max: 3600)]
        public float $zenithSd,
        #[Assert\Range(min: 0.00001, max: 1)]
        public float $distanceConstant,
        #[Assert\Range(min: 0, max: 1000)]
        public float $distancePpm,
        #[Assert\Range(min: 0, max: 0.1)]
        public float $instrumentCentring,
        #[Assert\Range(min: 0, max: 0.1)]
        public float $targetCentring,
        #[Assert\Range(min: 0, max: 0.1)]
        public float $heightCentring,
        #[Assert\Range(min: -5, max: 5)]
        public float $refraction,
        #[Assert\Range(min: 0.5, max: 0.9999)]
        public float $confidence,
        public bool $free = false,
        #[Assert\Count(max: 5000), Assert\All([new Assert\Type('numeric'), new Assert\Range(min: 0.001, max: 1000)])]
        public array $factors = [],
        #[Assert\Choice(['none', 'geoid', 'measured'])]
        public string $deflections = 'none',
        #[Assert\Range(min: -200, max: 200)]
        public float $xi = 0.0,
        #[Assert\Range(min: -200, max: 200)]
        public float $eta = 0.0,
    ) {
    }
}
