<?php

declare(strict_types=1);

namespace App\Ledger\View;

/** Before and after of one row, the changed columns only. */
final readonly class ChangeView
{
    /**
     * @param ?array<string, mixed> $before
     * @param ?array<string, mixed> $after
     */
    public function __construct(
        public string $what,
        public ?array $before,
        public ?array $after,
    ) {
    }
}
