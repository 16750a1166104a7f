<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A stretch in which a receiver stood at one place. Seconds after the first epoch; millimetres east, north, up. */
final readonly class StandView
{
    /** @param list<float> $mean */
    public function __construct(
        public float $from,
        public float $to,
        public int $count,
        public array $mean,
        public float $spreadPlan,
        public float $spreadUp,
    ) {
    }
}
