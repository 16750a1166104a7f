<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** What of the levelling book the network gets: differences as measured or adjusted, and how they are weighted. */
final readonly class LevelHandRequest
{
    /** @param ?float $sigma standard deviation of a kilometre or a setup, metres; not asked for weights by misclosure */
    public function __construct(
        #[Assert\Choice(['raw', 'adjusted'])]
        public string $as,
        #[Assert\Choice(['length', 'setups', 'misclosure'])]
        public string $weight,
        #[Assert\Range(min: 0.00001, max: 1)]
        public ?float $sigma = null,
    ) {
    }
}
