<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** How quantities are shown; decimals as in {@see \App\Project\View\UnitsView}. */
final readonly class UnitsRequest
{
    public function __construct(
        #[Assert\Choice(['m', 'ft', 'ftUS'])]
        public string $length,
        #[Assert\Choice(['dms', 'deg', 'gon'])]
        public string $angle,
        #[Assert\Range(min: 0, max: 6)]
        public int $decimals,
        #[Assert\Range(min: 0, max: 6)]
        public int $heights = 3,
        #[Assert\Range(min: 0, max: 4)]
        public int $angles = 1,
        #[Assert\Range(min: 0, max: 4)]
        public int $small = 1,
        #[Assert\Range(min: 0, max: 4)]
        public int $areas = 1,
    ) {
    }
}
