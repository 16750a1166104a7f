<?php

declare(strict_types=1);

namespace App\Store;

/** An entity that only operations change; the ledger keeps its rows as they were before and after. */
interface Journaled
{
}
