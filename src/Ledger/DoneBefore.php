<?php

declare(strict_types=1);

namespace App\Ledger;

/** The same request was carried out already; asking again changes nothing and is answered with the entry it made. */
final class DoneBefore extends \RuntimeException
{
    public function __construct(public readonly int $seq)
    {
        parent::__construct(\sprintf('This was done before, as entry %d.', $seq));
    }
}
