<?php

declare(strict_types=1);

namespace App\Ledger;

/** An entry cannot be undone alone because a later one changed the same thing. */
final class LaterChange extends \RuntimeException
{
    public function __construct(public readonly string $table, public readonly int $row)
    {
        parent::__construct('A later entry changed the same thing. Go back to before this entry instead, which takes the later ones back too.');
    }
}
