<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** A stretch of time in which a receiver stood at one place. Seconds; metres. */
final readonly class Stand
{
    /**
     * @param array{float, float, float} $mean       east, north, up
     * @param float                      $spreadPlan standard deviation of an epoch in plan
     */
    public function __construct(
        public float $from, public float $to, public int $count, public array $mean, public float $spreadPlan, public float $spreadUp,
    ) {
    }
}
