<?php

declare(strict_types=1);

namespace App\Store;

/** A journaled entity that people edit: it carries the number of the ledger entry that last changed it. */
interface Versioned extends Journaled
{
    /** Column of the version; it is no part of the images, for undoing gives contents back, not numbers. */
    public const COLUMN = 'version';

    public function version(): int;

    public function changedBy(int $seq): void;
}
