<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Result\Results;
use App\Survey\AcceptedCoordinates;
use Mensura\Fault\UnusableInput;
use Mensura\Plot\PaperSize;
use Mensura\Plot\ScaleChoice;
use Smalot\PdfParser\Page;
use Smalot\PdfParser\Parser;

/** Sheets as one PDF, measured in the file that was written. */
final class SheetPdf implements OffersChoice
{
    public const KEY = 'sheet';
    private const MM = 72.0 / 25.4;
    /** Metres of paper: a tenth of a millimetre. */
    private const ALLOWED = 0.0001;

    public function __construct(
        private readonly SheetRepository $sheets, private readonly SavedViewRepository $views, private readonly SheetDrawing $drawing,
        private readonly Results $results,
    ) {
    }

    public static function key(): string
    {
        return self::KEY;
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Sheets as PDF', 'Draw the sheets', 'sheets', 'pdf', 'application/pdf', 'Sheets',
            'drawing sheets true to scale, a set in one file', 6, 100,
        );
    }

    public function choices(Project $project): array
    {
        $names = [];
        foreach ($this->sheets->of($project) as $sheet) {
            $names[$sheet->id()] = $sheet->name();
        }

        return $names;
    }

    public function restsOn(array $chosen): array
    {
        $contents = $slots = [];
        foreach ($chosen as $id) {
            $contents[] = 'sheet:'.$id;
            $sheet = $this->sheets->find($id);
            foreach ($sheet?->definition()->windows ?? [] as $window) {
                $view = $this->views->find($window['view'])?->definition();
                if (null === $view || '' !== $view->locked) {
                    continue;
                }
                array_push($contents, 'points', ReferenceContent::kind());
                $surfaces = array_map(static fn (array $s): string => 'surface:'.$s['id'], $view->surfaces);
                array_push($slots, AcceptedCoordinates::SLOT, ...$surfaces);
            }
            array_push($slots, ...(null === $sheet || $sheet->definition()->plain ? [] : $this->ofTables($sheet)));
        }

        return [array_values(array_unique($contents)), array_values(array_unique($slots))];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        [$bytes, $leftOut] = $this->drawing->pdf($project, $this->definitions($project, $chosen));
        file_put_contents($path, $bytes);

        return $leftOut;
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $sheets = $this->definitions($project, $chosen);
        $pages = (new Parser())->parseFile($path)->getPages();
        $checks = [Check::count('pages', \count($sheets), \count($pages))];
        $paper = $bars = 0.0;
        $count = 0;
        foreach ($sheets as $i => $sheet) {
            if (!isset($pages[$i])) {
                continue;
            }
            $size = PaperSize::named($sheet->size, $sheet->landscape);
            $box = array_map(floatval(...), (array) ($pages[$i]->getDetails()['MediaBox'] ?? [0, 0, 0, 0]));
            $paper = max($paper, abs($box[2] / self::MM - $size->width), abs($box[3] / self::MM - $size->height));
            [$found, $apart] = self::bars($pages[$i], $sheet);
            $count += $found;
            $bars = max($bars, $apart);
        }
        $meant = array_sum(array_map(
            static fn (SheetDefinition $s): int => \count(array_filter($s->windows, static fn (array $w): bool => $w['bar'])), $sheets,
        ));

        return [
            ...$checks, Check::difference('paper', 0.001 * $paper, self::ALLOWED), Check::count('scale bars measured', $meant, $count),
            Check::difference('their lengths', 0.001 * $bars, self::ALLOWED),
        ];
    }

    /** @return list<string> slots that the tables of a sheet are read from */
    private function ofTables(KeptSheet $sheet): array
    {
        $slots = [];
        foreach ($sheet->definition()->tables as $table) {
            foreach ($this->drawing->slots($table['key']) as $prefix) {
                foreach (array_keys($this->results->current($sheet->project)) as $slot) {
                    array_push($slots, ...(str_starts_with($slot, $prefix) ? [$slot] : []));
                }
            }
        }

        return $slots;
    }

    /** @return array{int, float} scale bars whose words are found, and by how much the worst is off; millimetres */
    private static function bars(Page $page, SheetDefinition $sheet): array
    {
        $words = [];
        foreach ($page->getDataTm() as [$matrix, $text]) {
            $words[] = [trim((string) $text), (float) $matrix[4] / self::MM, (float) $matrix[5] / self::MM];
        }
        [$found, $worst] = [0, 0.0];
        foreach ($sheet->windows as $w) {
            if (!$w['bar']) {
                continue;
            }
            $metres = ScaleChoice::grid($w['scale']);
            $length = 1000.0 * $metres / $w['scale'];
            $label = rtrim(rtrim(\sprintf('%.3F', $metres), '0'), '.').' m';
            $best = \INF;
            foreach ($words as [$zero, $x0, $y0]) {
                foreach ('0' === $zero ? $words : [] as [$text, $x1, $y1]) {
                    if ($text === $label && abs($y1 - $y0) < 0.01) {
                        $best = min($best, abs($x1 - $x0 - $length));
                    }
                }
            }
            $found += (int) is_finite($best);
            $worst = max($worst, is_finite($best) ? $best : 0.0);
        }

        return [$found, $worst];
    }

    /**
     * @param list<int> $chosen
     *
     * @return list<SheetDefinition>
     */
    private function definitions(Project $project, array $chosen): array
    {
        if ([] === $chosen) {
            throw new UnusableInput('/surfaces', 'choose the sheets that are to be drawn');
        }

        return array_map(
            fn (int $id): SheetDefinition => $this->sheets->in($project, $id)?->definition()
                ?? throw new UnusableInput('/surfaces', 'there is no such sheet in the project'), $chosen,
        );
    }
}
