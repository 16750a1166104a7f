<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Features that were collected with a version of a catalogue; metres. */
final readonly class CollectedRequest
{
    /**
     * @param list<array{
     *     code: string, solution: string, places: list<array{e: float, n: float, h: float, sd: float, positions: int}>,
     *     attributes: array<string, string>,
     * }> $features
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 500)]
        public array $features,
    ) {
    }
}
