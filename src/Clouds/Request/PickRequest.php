<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A place that was picked. Metres. */
final readonly class PickRequest
{
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 60), Assert\Regex('/^\S+$/', 'A name of a point has no blanks.')]
        public string $name,
        #[Assert\Range(min: -1e8, max: 1e8)]
        public float $e,
        #[Assert\Range(min: -1e8, max: 1e8)]
        public float $n,
        #[Assert\Range(min: -1e5, max: 1e5)]
        public float $h,
        #[Assert\Length(max: 60)]
        public string $code = '',
    ) {
    }
}
