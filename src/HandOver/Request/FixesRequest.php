<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Where the simulated rover stands, and what it is held against. */
final readonly class FixesRequest
{
    /**
     * @param list<list<float>> $places  easting, northing, and the bearing it moves in, degrees
     * @param int               $surface of the package; -1 for none
     * @param string            $point   to be set out; empty for none
     * @param string            $line    "line 3" or "alignment 0"; empty for none
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 300)]
        public array $places,
        public int $surface = -1,
        #[Assert\Length(max: 200)]
        public string $point = '',
        #[Assert\Regex('/^((line|alignment) [0-9]{1,9})?$/D')]
        public string $line = '',
    ) {
    }
}
