<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What loops and repeats may miss by; ten millimetres and one millionth of the length are common practice for static work. */
final readonly class AllowanceRequest
{
    /**
     * @param float $constant millimetres
     * @param float $ppm      millionths of the length, added to it
     */
    public function __construct(
        #[Assert\Range(min: 0.1, max: 1000)]
        public float $constant = 10.0,
        #[Assert\Range(min: 0, max: 100)]
        public float $ppm = 1.0,
    ) {
    }
}
