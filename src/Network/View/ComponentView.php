<?php

declare(strict_types=1);

namespace App\Network\View;

/** What the standard deviations of a group are multiplied by, and what its residuals propose. */
final readonly class ComponentView
{
    public function __construct(
        public string $group,
        public int $count,
        public float $redundancy,
        public float $present,
        public float $proposed,
    ) {
    }
}
