<?php

declare(strict_types=1);

namespace App\Network\View;

/** Agreement of a group of observations with their weights. */
final readonly class GroupView
{
    public function __construct(
        public string $name,
        public string $kind,
        public string $setup,
        public int $count,
        public float $redundancy,
        public ?float $factor,
        public string $standing,
    ) {
    }
}
