<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** What would go along, and what stays out because of how well it is known. */
final readonly class GisCountView
{
    public function __construct(
        public int $points, public int $kept, public int $worse, public int $unknown, public int $lines, public int $areas,
    ) {
    }
}
