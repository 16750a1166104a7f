<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Api\Refusal;

final class NoSuchEntry extends \RuntimeException implements Refusal
{
    public function __construct(int $seq)
    {
        parent::__construct("The ledger has no entry $seq.");
    }

    public function status(): int
    {
        return 404;
    }

    public function title(): string
    {
        return 'Not found.';
    }

    public function more(): array
    {
        return [];
    }
}
