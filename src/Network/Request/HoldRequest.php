<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Marks to hold at their given coordinates. */
final readonly class HoldRequest
{
    /** @param list<string> $points */
    public function __construct(
        #[Assert\Count(min: 1, max: 2000)]
        #[Assert\All([new Assert\Type('string'), new Assert\Length(max: 60)])]
        public array $points,
    ) {
    }
}
