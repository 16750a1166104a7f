<?php

declare(strict_types=1);

namespace App\Baselines\Request;

/** An occupation to be solved epoch by epoch, and from which base. */
final readonly class EpochsRequest
{
    public function __construct(public int $base, public int $rover)
    {
    }
}
