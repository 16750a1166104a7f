<?php

declare(strict_types=1);

namespace App\Project\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** How quantities are shown. */
final readonly class UnitsRequest
{
    public function __construct(
        #[Assert\Choice(['m', 'ft', 'ftUS'])]
        public string $length,
        #[Assert\Choice(['dms', 'deg', 'gon'])]
        public string $angle,
        #[Assert\Range(min: 0, max: 6)]
        public int $decimals,
    ) {
    }
}
