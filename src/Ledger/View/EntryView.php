<?php

declare(strict_types=1);

namespace App\Ledger\View;

/** One entry of the ledger. */
final readonly class EntryView
{
    public function __construct(
        public int $seq,
        public string $operation,
        public string $title,
        public string $author,
        public string $at,
        public int $changes,
        public ?int $undoneBy,
        public ?int $undoes,
    ) {
    }
}
