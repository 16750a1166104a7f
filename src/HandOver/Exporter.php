<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Ledger\Recompute;
use App\Ledger\Results;
use App\Network\AcceptCoordinates;
use App\Network\Adjuster;
use App\Project\Project;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Writes a file, reads it back, keeps it with its receipt in the archive. A file whose receipt does not hold is not offered. */
final class Exporter implements Recompute
{
    public const PREFIX = 'export:';

    /** @var array<string, ExportWriter> */
    private array $writers = [];

    /** @param iterable<ExportWriter> $writers */
    public function __construct(
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
        #[AutowireIterator('app.export_writer')] iterable $writers,
    ) {
        foreach ($writers as $writer) {
            $this->writers[$writer::kind()] = $writer;
        }
    }

    public static function kind(): string
    {
        return 'export';
    }

    public function again(JobContext $context, array $row): void
    {
        $this->export($context->project, $context->authorName, $row['settings']['kind'], $row['settings']['surfaces'], $context->report(...));
    }

    /**
     * @param list<int>                          $surfaces
     * @param ?\Closure(string, float): void     $progress
     */
    public function export(Project $project, string $authorName, string $kind, array $surfaces, ?\Closure $progress = null, ?string $jobId = null): void
    {
        $stale = $this->results->stale($project);
        $slots = 'pdf' === $kind ? [Adjuster::SLOT] : [AcceptCoordinates::SLOT, ...array_map(static fn (int $s): string => 'surface:'.$s, $surfaces)];
        $current = $this->results->current($project);
        foreach ($slots as $slot) {
            if (isset($stale[$slot])) {
                throw new UnusableInput('', \sprintf('%s is stale (%s); recompute it, then hand over', lcfirst($current[$slot]['label']), implode(', ', $stale[$slot])));
            }
        }
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('writing', 0.2);
        $written = $this->writers[$kind]->write($project, $surfaces);
        $report('reading back', 0.7);
        $checks = $this->writers[$kind]->check($project, $surfaces, $written->bytes);
        $holds = [] === array_filter($checks, static fn (array $c): bool => !$c['holds']);
        $slot = self::PREFIX.$kind.([] === $surfaces ? '' : ':'.implode(',', $surfaces));
        $this->ledger->carryOut($project, $authorName, new RecordExport($this->results, $slot, $written, $checks, $holds, $this->store->put($written->bytes), 'pdf' === $kind ? [] : ['points'], $slots, ['kind' => $kind, 'surfaces' => $surfaces]), $jobId);
    }
}
