<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Ledger\Ledger;

/** The volume of a surface too large for a page to wait for. */
final class VolumeHandler implements JobHandler
{
    /** Triangles of a surface whose volume is computed while the page waits. */
    public const MOST_AT_ONCE = 60_000;

    public function __construct(private readonly TerrainOperations $operations, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'volume';
    }

    public function run(JobContext $context): void
    {
        $context->report('cut and fill', 0.1);
        $volume = $this->operations->volume((int) $context->payload['surface'], (float) $context->payload['elevation']);
        $this->ledger->carryOut($context->project, $context->authorName, $volume, $context->jobId);
    }
}
