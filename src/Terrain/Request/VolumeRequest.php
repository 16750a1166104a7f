<?php

declare(strict_types=1);

namespace App\Terrain\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** The elevation to compare with, metres. */
final readonly class VolumeRequest
{
    public function __construct(
        #[Assert\Range(min: -1e5, max: 1e5)]
        public float $elevation,
    ) {
    }
}
