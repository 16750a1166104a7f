<?php

declare(strict_types=1);

namespace App\Survey;

use App\Ledger\Ledger;
use App\Ledger\LedgerEntryRepository;
use App\Project\Project;

/** Which points changed since an entry of the ledger: the journals have their rows. */
final class PointChanges
{
    /** With more changes than these, reading all points is quicker. */
    private const MOST_ROWS = 20000;
    private const MOST_ENTRIES = 50;

    public function __construct(private readonly LedgerEntryRepository $entries, private readonly Ledger $ledger)
    {
    }

    /** @return ?list<int> ids of points that were added, changed or removed; null when all are better read anew */
    public function since(Project $project, int $seq): ?array
    {
        $last = $this->entries->lastSeq($project);
        if ($seq > $last || $last - $seq > self::MOST_ENTRIES) {
            return null;
        }
        $entries = $this->entries->after($project, $seq);
        $rows = 0;
        foreach ($entries as $entry) {
            $rows += $entry->changeCount;
        }
        if ($rows > self::MOST_ROWS) {
            return null;
        }
        $ids = [];
        foreach ($entries as $entry) {
            foreach ($this->ledger->changes($entry)->images() as $images) {
                foreach ('point' === $images->table ? $images->rows : [] as [$id]) {
                    $ids[$id] = true;
                }
            }
        }

        return array_keys($ids);
    }
}
