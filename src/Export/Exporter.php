<?php

declare(strict_types=1);

namespace App\Export;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;

/** Writes a file, reads it back, keeps it with its receipt in the archive. A file whose receipt does not hold is not offered. */
final class Exporter implements Recompute
{
    public const PREFIX = 'export:';

    public function __construct(
        private readonly ExportKinds $kinds,
        private readonly FileStore $store,
        private readonly Results $results,
        private readonly Ledger $ledger,
    ) {
    }

    public static function kind(): string
    {
        return 'export';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = $newest->settings;
        $this->export($context->project, $context->authorName, $settings['kind'], $settings['surfaces'], $context->report(...));
    }

    /**
     * @param list<int>                      $chosen
     * @param ?\Closure(string, float): void $progress
     */
    public function export(
        Project $project,
        string $authorName,
        string $key,
        array $chosen,
        ?\Closure $progress = null,
        ?string $jobId = null,
    ): void {
        $kind = $this->kinds->named($key);
        [$contents, $slots] = $kind->restsOn($chosen);
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $path = (string) tempnam(sys_get_temp_dir(), 'export');
        try {
            $this->refuseStale($project, $slots);
            // What changes from here on makes the file stale, and is found by reading it back where it got into it.
            [$basis, $project] = $this->results->reading($project, $contents, $slots, static fn (Project $project): Project => $project);
            $report('writing', 0.2);
            $leftOut = $kind->write($project, $chosen, $path);
            $report('reading back', 0.7);
            $checks = $kind->check($project, $chosen, $path);
            $about = $kind->about();
            $size = (int) filesize($path);
            $file = new WrittenFile(self::fileName($project, $kind, $chosen), $size, $this->store->take($path), $leftOut, $checks);
        } finally {
            @unlink($path);
        }
        $outcome = new Outcome(
            self::PREFIX.$key.([] === $chosen ? '' : ':'.implode(',', $chosen)), self::kind(), $about->label, $basis,
            ['kind' => $key, 'surfaces' => $chosen], $file->summary(), $file->output,
        );
        $this->ledger->carryOut($project, $authorName, new RecordExport($this->results, $file, $outcome), $jobId);
    }

    /** @param list<string> $slots */
    private function refuseStale(Project $project, array $slots): void
    {
        $stale = $this->results->stale($project);
        $current = $this->results->current($project);
        foreach ($slots as $slot) {
            if (isset($stale[$slot])) {
                $words = '%s is stale (%s); recompute it, then hand over';
                throw new UnusableInput('', \sprintf($words, $current[$slot]->inWords(), implode(', ', $stale[$slot])));
            }
        }
    }

    /** @param list<int> $chosen */
    private static function fileName(Project $project, ExportKind $kind, array $chosen): string
    {
        $about = $kind->about();
        $words = [$project->name(), $about->what];
        if (1 === $about->takes && $kind instanceof OffersChoice) {
            $words[] = $kind->choices($project)[$chosen[0] ?? 0] ?? '';
        }
        $plain = static fn (string $w): string => strtolower(trim(preg_replace('/[^A-Za-z0-9]+/', '-', $w) ?? '', '-'));
        $plainly = array_filter(array_map($plain, $words), static fn (string $w): bool => '' !== $w);

        return ('' === $plain($project->name()) ? 'project-' : '').implode('-', $plainly).'.'.$about->extension;
    }
}
