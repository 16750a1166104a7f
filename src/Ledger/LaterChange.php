<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Api\Refusal;

/** An entry cannot be undone alone because a later one changed the same thing. */
final class LaterChange extends \RuntimeException implements Refusal
{
    public function __construct(public readonly string $table, public readonly int $row)
    {
        parent::__construct(
            'A later entry changed the same thing. Go back to before this entry instead, which takes the later ones back too.',
        );
    }

    public function status(): int
    {
        return 409;
    }

    public function title(): string
    {
        return 'This cannot be undone alone.';
    }

    public function more(): array
    {
        return [];
    }
}
