<?php

declare(strict_types=1);

namespace App\Ledger\View;

/** What going back would take back. */
final readonly class BackPreview
{
    /**
     * @param list<EntryView> $entries
     */
    public function __construct(
        public array $entries,
        public int $changes,
    ) {
    }
}
