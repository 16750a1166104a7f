<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Export\Exporter;
use App\HandOver\Choices;
use App\HandOver\View\SavedViewView;
use App\HandOver\View\SheetsView;
use App\HandOver\View\SheetView;
use App\HandOver\WrittenFiles;
use App\Project\Project;
use App\Result\Results;
use Mensura\Plot\PaperSize;

/** Sheets and views of a project, and what can be chosen for them. */
final class SheetPage
{
    public function __construct(
        private readonly SheetRepository $sheets, private readonly SavedViewRepository $views, private readonly SheetDrawing $drawing,
        private readonly WrittenFiles $written, private readonly Results $results, private readonly Choices $choices,
    ) {
    }

    public function of(Project $project): SheetsView
    {
        $sheets = array_map(static function (KeptSheet $s): SheetView {
            $d = $s->definition();

            return new SheetView(
                $s->id(), $s->version(), $s->name(), $d->size, $d->landscape, $d->plain, $d->windows, $d->tables, $d->fields, $d->revisions,
            );
        }, $this->sheets->of($project));
        $views = array_map(static function (SavedView $v): SavedViewView {
            $d = $v->definition();

            return new SavedViewView(
                $v->id(), $v->version(), $v->name(), $d->roles, $d->codes, $d->names, $d->heights, $d->surfaces, $d->layers, $d->screenOnly,
                $d->text, $d->locked,
            );
        }, $this->views->of($project));
        $files = [];
        foreach (array_keys($this->results->current($project)) as $slot) {
            if (str_starts_with($slot, Exporter::PREFIX.SheetPdf::KEY.':')) {
                array_push($files, ...\array_slice($this->written->of($project, $slot), 0, 1));
            }
        }
        $sizes = array_map(static function (string $name): array {
            $p = PaperSize::named($name, false);

            return ['name' => $name, 'width' => $p->width, 'height' => $p->height];
        }, PaperSize::names());
        $tables = [];
        foreach ($this->drawing->tables() as $key => $title) {
            $tables[] = ['key' => $key, 'title' => $title];
        }
        $c = $this->choices;

        return new SheetsView(
            $sheets, $views, $files, $sizes, $tables, $c->surfaces($project), $c->roles($project), $c->codes($project),
            $c->layers($project), Choices::colours(),
        );
    }
}
