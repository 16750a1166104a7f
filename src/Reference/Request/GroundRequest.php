<?php

declare(strict_types=1);

namespace App\Reference\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** The project's system scaled to the ground about a point. */
final readonly class GroundRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $point,
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 160)]
        public string $name,
    ) {
    }
}
