<?php

declare(strict_types=1);

namespace App\Ledger;

final class NoSuchEntry extends \RuntimeException
{
    public function __construct(int $seq)
    {
        parent::__construct("The ledger has no entry $seq.");
    }
}
