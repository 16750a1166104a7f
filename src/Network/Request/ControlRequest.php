<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What is given about a control mark; metres. */
final readonly class ControlRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim')]
        public string $point,
        #[Assert\Range(min: -1e8, max: 1e8)]
        public ?float $e,
        #[Assert\Range(min: -1e8, max: 1e8)]
        public ?float $n,
        #[Assert\Range(min: -1e5, max: 1e5)]
        public ?float $h,
        #[Assert\Regex('/^(|e?n?h?)$/')]
        public string $held = '',
        #[Assert\Positive]
        public ?float $sdE = null,
        #[Assert\Positive]
        public ?float $sdN = null,
        #[Assert\Positive]
        public ?float $sdH = null,
    ) {
    }
}
