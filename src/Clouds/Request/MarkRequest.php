<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** A control or check point that a scan shows, and where, from its given place. Metres. */
final readonly class MarkRequest
{
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 60)]
        public string $target,
        #[Assert\Range(min: -10, max: 10)]
        public float $east = 0.0,
        #[Assert\Range(min: -10, max: 10)]
        public float $north = 0.0,
    ) {
    }
}
