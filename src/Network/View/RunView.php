<?php

declare(strict_types=1);

namespace App\Network\View;

/** One run of the adjustment. */
final readonly class RunView
{
    /**
     * @param list<string> $sentences
     * @param list<string> $warnings
     */
    public function __construct(
        public int $id,
        public int $run,
        public string $createdAt,
        public string $author,
        public ?bool $passed,
        public bool $converged,
        public ?float $varianceFactor,
        public ?float $lower,
        public ?float $upper,
        public int $redundancy,
        public int $observations,
        public int $stations,
        public int $asideCount,
        public bool $free,
        public float $confidence,
        public string $headline,
        public array $sentences,
        public array $warnings,
    ) {
    }
}
