<?php

declare(strict_types=1);

namespace App\Network\View;

/** The newest run against the one before. */
final readonly class ComparisonView
{
    /**
     * @param list<ShiftView> $shifts
     */
    public function __construct(
        public int $previousRun,
        public ?float $previousFactor,
        public ?bool $previousPassed,
        public array $shifts,
        public float $largest,
    ) {
    }
}
