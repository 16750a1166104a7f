<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** Two occupations that recorded together, and how the baseline between them was solved. Seconds of GPS time since 1980-01-06. */
final readonly class BaselineView
{
    /**
     * @param int      $base    occupation
     * @param ?float   $length  metres
     * @param list<string> $stale why its solution is
     * @param list<BaselineRunView> $runs newest first
     * @param bool $moves its rover does: it has a track
     */
    public function __construct(
        public string $key,
        public int $base,
        public int $rover,
        public string $fromName,
        public string $toName,
        public string $session,
        public float $from,
        public float $to,
        public bool $independent,
        public ?float $length,
        public array $runs,
        public array $stale,
        public bool $accepted,
        public ?EpochsView $epochs,
        public bool $moves,
    ) {
    }
}
