<?php

declare(strict_types=1);

namespace App\Intake\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Answers about a waiting file: frame "project", "local", a system, or "localization:ID"; heights "ellipsoidal", "geoid" or empty. */
final readonly class MeaningRequest
{
    public function __construct(
        #[Assert\Length(max: 40)]
        public string $frame = 'project',
        #[Assert\Choice(['', 'ellipsoidal', 'geoid'])]
        public string $heights = '',
        #[Assert\Length(max: 80)]
        public string $geoid = '',
        public ?bool $swap = null,
        public bool $far = false,
        #[Assert\Choice(['', 'latitude', 'longitude', 'both', 'none'])]
        public string $sign = '',
        #[Assert\Length(max: 400)]
        public string $operation = '',
        #[Assert\Choice(['', 'hold', 'weight', 'check', 'information'])]
        public string $control = '',
        public ?float $sigma = null,
    ) {
    }
}
