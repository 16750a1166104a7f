<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Ledger\Recompute;
use App\Ledger\Results;
use App\Store\FileStore;

final class VolumeAgain implements Recompute
{
    public function __construct(private readonly Results $results, private readonly FileStore $store, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return ComputeVolume::KIND;
    }

    public function again(JobContext $context, array $row): void
    {
        $this->ledger->carryOut($context->project, $context->authorName, new ComputeVolume($this->results, $this->store, (int) substr($row['slot'], 7), (float) $row['settings']['elevation']));
    }
}
