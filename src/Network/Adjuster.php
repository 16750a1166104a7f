<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Ledger\Recompute;
use App\Ledger\Results;
use App\Project\Project;
use App\Store\FileStore;
use Mensura\Network\Adjustment;

/** Runs the adjustment of a project and keeps its result. */
final class Adjuster implements Recompute
{
    public const SLOT = 'network';

    public function __construct(
        private readonly NetworkAssembly $assembly,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'adjustment';
    }

    public function again(JobContext $context, array $row): void
    {
        $this->run($context->project, $context->authorName, $context->report(...));
    }

    /** @param ?\Closure(string, float): void $progress */
    public function run(Project $project, string $authorName, ?\Closure $progress = null, ?string $jobId = null): void
    {
        [$network, $ids] = $this->assembly->of($project);
        $settings = NetworkSettings::of($project);
        $result = (new Adjustment($network, $settings->free, false, $progress))->run();
        $document = $result->toArray();
        $document['ids'] = $ids;
        $output = $this->store->putJson($document);
        $this->ledger->carryOut($project, $authorName, new RecordAdjustment($this->results, $result, (array) $settings, $output), $jobId);
    }
}
