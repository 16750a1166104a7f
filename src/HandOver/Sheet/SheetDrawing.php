<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Export\SheetTable;
use App\Project\Project;
use App\Reference\ProjectReference;
use Mensura\Fault\UnusableInput;
use Mensura\Plot\PaperSize;
use Mensura\Plot\Placement;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Draws sheets to a PDF. */
final class SheetDrawing
{
    /** @var array<string, SheetTable> */
    private array $tables = [];

    /** @param iterable<SheetTable> $tables */
    public function __construct(
        private readonly SavedViewRepository $views, private readonly ViewDrawing $drawing, private readonly ProjectReference $references,
        #[AutowireIterator('app.sheet_table')]
        iterable $tables,
    ) {
        foreach ($tables as $table) {
            $this->tables[$table::key()] = $table;
        }
    }

    /** @return array<string, string> titles by key */
    public function tables(): array
    {
        return array_map(static fn (SheetTable $t): string => $t->title(), $this->tables);
    }

    /** @return list<string> prefixes of the slots a table is read from */
    public function slots(string $key): array
    {
        return isset($this->tables[$key]) ? $this->tables[$key]->slots() : [];
    }

    /**
     * @param list<SheetDefinition> $sheets
     *
     * @return array{string, list<string>} bytes of the PDF, and what is not on it, in words
     *
     * @throws UnusableInput
     */
    public function pdf(Project $project, array $sheets): array
    {
        $pages = new SheetPages();
        $pages->setTitle($project->name());
        $leftOut = [];
        foreach ($sheets as $i => $sheet) {
            array_push($leftOut, ...$this->page($pages, $project, $sheet, \sprintf('%d of %d', $i + 1, \count($sheets))));
        }

        return [(string) $pages->Output('', 'S'), $leftOut];
    }

    /** @return list<string> */
    private function page(SheetPages $pages, Project $project, SheetDefinition $sheet, string $page): array
    {
        $pages->sheet(PaperSize::named($sheet->size, $sheet->landscape));
        $scales = $leftOut = [];
        foreach ($sheet->windows as $k => $w) {
            $view = $this->view($project, $w['view'], "/windows/$k/view");
            $place = self::placement($w, $view);
            $pages->window($place, $view, $w, (string) ($k + 1));
            $scales[] = '1 : '.rtrim(rtrim(\sprintf('%.2F', $w['scale']), '0'), '.');
        }
        foreach ($sheet->plain ? [] : $sheet->tables as $k => $t) {
            $table = $this->tables[$t['key']]
                ?? throw new UnusableInput("/tables/$k/key", 'is one of '.implode(', ', array_keys($this->tables)));
            [$columns, $rows] = $table->rows($project);
            $more = $pages->table($t['x'], $t['y'], $t['width'], $table->title(), $columns, $rows);
            if ($more > 0) {
                $leftOut[] = \sprintf('%d rows of the table %s, for which the sheet has no room', $more, $table->title());
            }
        }
        if (!$sheet->plain) {
            $pages->outerFrame();
            $words = implode(', ', array_unique($scales));
            $pages->titleBlock($sheet->fields, $sheet->revisions, $project->name(), $this->references->words($project), $words, $page);
        }

        return $leftOut;
    }

    /** @throws UnusableInput */
    public function view(Project $project, int $id, string $pointer): DrawnView
    {
        $view = $this->views->in($project, $id) ?? throw new UnusableInput($pointer, 'there is no such view; save one first');

        return $this->drawing->of($project, $view->definition());
    }

    /** @param array{x: float, y: float, width: float, height: float, scale: float, e: ?float, n: ?float, rotation: float, ...} $w */
    public static function placement(array $w, DrawnView $view): Placement
    {
        $box = $view->box() ?? [0.0, 0.0, 0.0, 0.0];

        return new Placement(
            $w['x'], $w['y'], $w['width'], $w['height'], $w['e'] ?? 0.5 * ($box[0] + $box[2]), $w['n'] ?? 0.5 * ($box[1] + $box[3]),
            $w['scale'], $w['rotation'],
        );
    }
}
