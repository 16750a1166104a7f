<?php

declare(strict_types=1);

namespace App\Baselines\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Baselines to be accepted to the network. */
final readonly class VectorsRequest
{
    /** @param list<string> $baselines keys of them */
    public function __construct(
        #[Assert\Count(min: 1, max: 5000), Assert\All([new Assert\Regex('/^[0-9]+-[0-9]+$/')])]
        public array $baselines,
    ) {
    }
}
