<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** One line of a receipt. */
final readonly class CheckView
{
    public function __construct(
        public string $what,
        public string $expected,
        public string $found,
        public bool $holds,
    ) {
    }
}
