<?php

declare(strict_types=1);

namespace App\Ledger\View;

/** An entry with its detail and its first changes. */
final readonly class EntryDetail
{
    /**
     * @param array<string, mixed> $detail
     * @param list<ChangeView> $changes
     */
    public function __construct(
        public EntryView $entry,
        public array $detail,
        public array $changes,
    ) {
    }
}
