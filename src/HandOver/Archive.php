<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Exporter;
use App\Export\ExportKinds;
use App\Export\OffersChoice;
use App\Export\WrittenFile;
use App\HandOver\View\CheckView;
use App\HandOver\View\ExportView;
use App\HandOver\View\HandOverView;
use App\HandOver\View\OfferView;
use App\Project\Project;
use App\Reference\GridFile;
use App\Reference\GridFileList;
use App\Reference\View\GridFileView;
use App\Result\Result;
use App\Result\Results;

/** What was handed over, newest of each kind and before. */
final class Archive
{
    public function __construct(
        private readonly Results $results,
        private readonly GridFileList $grids,
        private readonly ExportKinds $kinds,
    ) {
    }

    public function of(Project $project): HandOverView
    {
        $stale = $this->results->stale($project);
        $newest = $archive = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (Exporter::kind() !== $result->kind) {
                continue;
            }
            foreach ($this->results->runs($project, $slot) as $i => $run) {
                if (0 === $i) {
                    $newest[] = self::view($run, $stale[$slot] ?? []);
                } else {
                    $archive[] = self::view($run, ['a newer one was written']);
                }
            }
        }
        $extracts = array_filter($this->grids->of($project, null), static fn (GridFileView $g): bool => GridFile::EXTRACT === $g->origin);

        $offers = [];
        foreach ($this->kinds->all() as $key => $a) {
            $kind = $this->kinds->named($key);
            $choices = [];
            foreach ($kind instanceof OffersChoice ? $kind->choices($project) : [] as $id => $name) {
                $choices[] = ['id' => $id, 'name' => $name];
            }
            $format = '' === $a->format ? strtoupper($a->extension) : $a->format;
            $offers[] = new OfferView($key, $a->title, $format, $a->holds, $a->takes, $choices);
        }

        return new HandOverView($offers, $newest, $archive, array_values(array_map(
            static fn (GridFileView $g): array => [
                'id' => (int) $g->id, 'name' => $g->name, 'size' => $g->size, 'notes' => $g->notes,
            ], $extracts,
        )));
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
