<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Api\Refusal;

/** The project changes faster than the operation can be prepared. */
final class ChangedMeanwhile extends \RuntimeException implements Refusal
{
    public function __construct()
    {
        parent::__construct('Others are changing this project just now; nothing was changed by this. Try again in a moment.');
    }

    public function status(): int
    {
        return 503;
    }

    public function title(): string
    {
        return 'The project is changing.';
    }

    public function more(): array
    {
        return [];
    }
}
