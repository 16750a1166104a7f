<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Limit of the standardized residual for screening. */
final readonly class ScreenRequest
{
    public function __construct(
        #[Assert\Range(min: 2, max: 20)]
        public float $limit = 3.29,
        #[Assert\Range(min: 1, max: 1000)]
        public ?int $most = null,
    ) {
    }
}
