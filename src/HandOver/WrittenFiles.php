<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\WrittenFile;
use App\HandOver\View\CheckView;
use App\HandOver\View\ExportView;
use App\Project\Project;
use App\Result\ContentVersions;
use App\Result\Result;
use App\Result\Results;

/** Files that were written in one place, each with its receipt. */
final class WrittenFiles
{
    public function __construct(private readonly Results $results, private readonly ContentVersions $contents)
    {
    }

    /** @return list<ExportView> newest first */
    public function of(Project $project, string $slot): array
    {
        $files = [];
        foreach ($this->results->runs($project, $slot) as $i => $run) {
            $files[] = $this->view($run, 0 === $i ? $this->results->stale($project)[$slot] ?? [] : ['a newer one was written']);
        }

        return $files;
    }

    /** @param list<string> $stale */
    private function view(Result $run, array $stale): ExportView
    {
        $file = WrittenFile::kept($run);
        $checks = array_map(
            static fn (array $c): CheckView => new CheckView($c['what'], $c['expected'], $c['found'], $c['holds']),
            $file['checks'],
        );

        return new ExportView(
            $run->id(), $run->slot, $run->settings['kind'], $run->label, $file['file'], $file['size'], $run->run,
            $run->at(), $run->authorName,
            $file['holds'], $checks, $file['leftOut'], $stale, $run->output, $this->inputs($run),
        );
    }

    /** @return list<string> each with the beginning of the hash of what it was */
    public function inputs(Result $run): array
    {
        $inputs = [];
        foreach ($run->inputs as $input => $version) {
            $inputs[] = \sprintf('%s %s', $this->words((string) $input), substr($version, 0, 10));
        }

        return $inputs;
    }

    /** An input in words: "coordinates of points", "result surface:3". */
    public function words(string $input): string
    {
        return str_starts_with($input, Result::RESULT) ? 'result '.substr($input, \strlen(Result::RESULT)) : $this->contents->words($input);
    }
}
