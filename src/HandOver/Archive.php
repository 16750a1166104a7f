<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Exporter;
use App\Export\ExportKinds;
use App\Export\OffersChoice;
use App\HandOver\View\HandOverView;
use App\HandOver\View\OfferView;
use App\Project\Project;
use App\Reference\GridFile;
use App\Reference\GridFileList;
use App\Reference\View\GridFileView;
use App\Result\Results;

/** What was handed over, newest of each kind and before. */
final class Archive
{
    public function __construct(
        private readonly Results $results,
        private readonly GridFileList $grids,
        private readonly ExportKinds $kinds,
        private readonly WrittenFiles $written,
    ) {
    }

    public function of(Project $project): HandOverView
    {
        $newest = $archive = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (Exporter::kind() !== $result->kind) {
                continue;
            }
            $files = $this->written->of($project, $slot);
            array_push($newest, ...\array_slice($files, 0, 1));
            array_push($archive, ...\array_slice($files, 1));
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
            $offers[] = new OfferView($key, $a->group(), $a->title, $format, $a->holds, $a->takes, $choices);
        }

        return new HandOverView($project->letterhead(), $offers, $newest, $archive, array_values(array_map(
            static fn (GridFileView $g): array => [
                'id' => (int) $g->id, 'name' => $g->name, 'size' => $g->size, 'notes' => $g->notes,
            ], $extracts,
        )));
    }
}
