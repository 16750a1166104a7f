<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Mensura\Gnss\AntennaHeight;
use Symfony\Component\Validator\Constraints as Assert;

/** What is made right about an occupation. Metres; seconds of GPS time since 1980-01-06. */
final readonly class OccupationRequest
{
    /**
     * @param ?float $trimFrom first instant used; null for all
     * @param string $reason   of a trim
     * @param ?bool  $moves    the receiver moved; null leaves it as it is
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 60)]
        public string $marker,
        #[Assert\Choice([AntennaHeight::VERTICAL, AntennaHeight::SLANT])]
        public string $heightKind,
        #[Assert\Range(min: 0, max: 100)]
        public float $heightValue,
        #[Assert\Range(min: 0, max: 5)]
        public float $heightRadius = 0.0,
        #[Assert\Range(min: -5, max: 5)]
        public float $heightAbove = 0.0,
        #[Assert\Length(max: 60)]
        public string $antenna = '',
        public ?float $trimFrom = null,
        public ?float $trimTo = null,
        #[Assert\Length(max: 200)]
        public string $reason = '',
        public ?bool $moves = null,
    ) {
    }
}
