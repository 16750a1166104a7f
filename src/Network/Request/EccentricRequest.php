<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Pointings whose target stood off its mark, and where the mark lies from it as the observer sees it: metres. */
final readonly class EccentricRequest
{
    /** @param list<int> $pointings an observation of each */
    public function __construct(
        #[Assert\Count(min: 1, max: 2000), Assert\All([new Assert\Type('int')])]
        public array $pointings,
        #[Assert\Range(min: -100, max: 100)]
        public float $right = 0.0,
        #[Assert\Range(min: -100, max: 100)]
        public float $onwards = 0.0,
        #[Assert\Range(min: -100, max: 100)]
        public float $up = 0.0,
        #[Assert\Length(max: 400)]
        public string $reason = '',
    ) {
    }
}
