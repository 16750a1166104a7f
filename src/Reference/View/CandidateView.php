<?php

declare(strict_types=1);

namespace App\Reference\View;

/** One transformation between two datums. Accuracy in metres; bounds south, west, north, east in degrees. */
final readonly class CandidateView
{
    /**
     * @param list<float>|null                                                       $bounds
     * @param list<array{method: string, source: string, parameters: list<string>}> $steps
     * @param list<string>                                                           $missing
     */
    public function __construct(
        public string $name,
        public ?float $accuracy,
        public string $area,
        public ?array $bounds,
        public bool $covers,
        public bool $usable,
        public array $missing,
        public array $steps,
        public ?float $epoch,
    ) {
    }
}
