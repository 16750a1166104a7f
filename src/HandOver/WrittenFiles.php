<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\WrittenFile;
use App\HandOver\View\CheckView;
use App\HandOver\View\ExportView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;

/** Files that were written in one place, each with its receipt. */
final class WrittenFiles
{
    public function __construct(private readonly Results $results)
    {
    }

    /** @return list<ExportView> newest first */
    public function of(Project $project, string $slot): array
    {
        $files = [];
        foreach ($this->results->runs($project, $slot) as $i => $run) {
            $files[] = self::view($run, 0 === $i ? $this->results->stale($project)[$slot] ?? [] : ['a newer one was written']);
        }

        return $files;
    }

    /** @param list<string> $stale */
    private static function view(Result $run, array $stale): ExportView
    {
        $file = WrittenFile::kept($run);
        $checks = array_map(
            static fn (array $c): CheckView => new CheckView($c['what'], $c['expected'], $c['found'], $c['holds']),
            $file['checks'],
        );

        return new ExportView(
            $run->id(), $run->slot, $run->settings['kind'], $run->label, $file['file'], $file['size'], $run->run,
            $run->at(), $run->authorName,
            $file['holds'], $checks, $file['leftOut'], $stale,
        );
    }
}
