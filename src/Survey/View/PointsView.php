<?php

declare(strict_types=1);

namespace App\Survey\View;

/** Points of a project as the ledger's entry seq left them: all, or those changed since the entry asked for and the ids of those gone. */
final readonly class PointsView
{
    /**
     * @param list<int>           $gone
     * @param iterable<PointView> $points oldest first
     */
    public function __construct(
        public int $seq,
        public bool $whole,
        public array $gone,
        public iterable $points,
    ) {
    }
}
