<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** How the levelling book is worked out, and its typed benchmarks. */
final readonly class LevelSettingsRequest
{
    /** @param list<array{id: string, h: float}> $benchmarks */
    public function __construct(
        #[Assert\Range(min: 0.00001, max: 1)]
        public float $k,
        #[Assert\Choice(['km', 'setup'])]
        public string $per,
        #[Assert\Choice(['length', 'setup'])]
        public string $distribute,
        public bool $curvature,
        #[Assert\Range(min: -20, max: 20)]
        public float $refraction,
        #[Assert\Range(min: 0, max: 1)]
        public float $repeatLimit,
        #[Assert\Range(min: -100000, max: 100000)]
        public float $scalePpm,
        #[Assert\Range(min: -0.01, max: 0.01)]
        public float $expansion,
        #[Assert\Range(min: -90, max: 70)]
        public float $temperature,
        #[Assert\Range(min: -90, max: 70)]
        public float $referenceTemperature,
        #[Assert\Count(max: 5000)]
        public array $benchmarks = [],
    ) {
    }
}
