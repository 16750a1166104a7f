<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Result\Recompute;
use App\Result\Result;

final class VolumeAgain implements Recompute
{
    public function __construct(private readonly TerrainOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return ComputeVolume::KIND;
    }

    public function again(JobContext $context, Result $newest): void
    {
        $volume = $this->operations->volume($newest->number(), (float) $newest->settings['elevation']);
        $this->ledger->carryOut($context->project, $context->authorName, $volume);
    }
}
