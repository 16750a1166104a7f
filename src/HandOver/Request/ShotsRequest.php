<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** As-built shots of the simulated controller, to be brought into the project. */
final readonly class ShotsRequest
{
    /**
     * @param list<array{e: float, n: float, h: float, count: int, sd: float, code: string, note: string}> $shots metres
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 5000)]
        public array $shots,
        #[Assert\Regex('/^[\p{L}\p{N}][\p{L}\p{N}_.-]{0,20}$/uD', message: 'is a name without blanks')]
        public string $prefix = 'AB-',
    ) {
    }
}
