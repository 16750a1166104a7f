<?php

declare(strict_types=1);

namespace App\Ledger\View;

/** The newest entries first. */
final readonly class LedgerView
{
    /**
     * @param list<EntryView> $entries
     */
    public function __construct(
        public array $entries,
    ) {
    }
}
