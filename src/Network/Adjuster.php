<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Recompute;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedVectors;
use Mensura\Network\Adjustment;

/** Runs the adjustment of a project and keeps its result. */
final class Adjuster implements Recompute
{
    public const SLOT = 'network';

    private const RESTS_ON = ['observations', 'control', 'reference', 'network-settings'];

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

    public function again(JobContext $context, Result $newest): void
    {
        $this->run($context->project, $context->authorName, $context->report(...));
    }

    /** @param ?\Closure(string, float): void $progress */
    public function run(Project $project, string $authorName, ?\Closure $progress = null, ?string $jobId = null): void
    {
        [
            $basis, [$network, $ids, $settings],
        ] = $this->results->reading($project, self::RESTS_ON, [AcceptedVectors::SLOT], function (Project $project): array {
            return [...$this->assembly->of($project), NetworkSettings::of($project)];
        });
        $adjustment = new Adjustment($network, $settings->free, false, $progress);
        $result = $adjustment->run();
        $document = $result->toArray();
        $document['ids'] = $ids;
        $document['relative'] = $adjustment->relative();
        $record = new RecordAdjustment($this->results, $result, $basis, (array) $settings, $this->store->putJson($document));
        $this->ledger->carryOut($project, $authorName, $record, $jobId);
    }
}
