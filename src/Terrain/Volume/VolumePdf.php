<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Export\Report;
use App\Export\ReportHead;
use App\Export\ReportPages;
use App\Export\ReportPicture;
use App\Export\ReportProfile;
use App\Export\RoundNumber;
use App\Export\WritesPages;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Terrain\View\HaulView;
use App\Terrain\View\VolumeView;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;
use Mensura\Section\SurfaceSection;
use Mensura\Surface\RimSurface;
use Mensura\Surface\Tin;
use Smalot\PdfParser\Parser;

/** The volume report: figures, map of cut and fill, two sections, slices, what is to carry, and what it all rests on. */
final readonly class VolumePdf implements OffersChoice, Report
{
    use WritesPages;

    /** As on the page: blue is put in, warm is taken away. */
    private const COLOURS = ['#2f5f9e', '#6f97c6', '#b9cfe6', '#ffffff', '#f0d3b0', '#d99a55', '#a8602a'];

    /** What is about nothing and has no colour, as a part of a step. */
    private const NOTHING = 0.05;

    public function __construct(
        private VolumePage $volumes, private Results $results, private FileStore $store, private ProjectReference $references,
        private ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'volume-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Volume report', 'Write the volume report', 'volume', 'pdf', 'application/pdf', 'Volume report',
            'cut and fill with map, sections, slices and materials', 40, 1,
        );
    }

    public function choices(Project $project): array
    {
        return array_column($this->volumes->of($project), 'name', 'number');
    }

    public function restsOn(array $surfaces): array
    {
        return [['materials'], array_map(static fn (int $v): string => VolumeMaker::PREFIX.$v, $surfaces)];
    }

    public function pages(Project $project, array $surfaces): array
    {
        [$view, $result] = $this->chosen($project, $surfaces);
        $as = new Shown($project);
        $page = new ReportPages($project->name().': volume '.$view->name);
        $this->head->open($page, $project, VolumeMaker::PREFIX.($surfaces[0] ?? 0));
        $page->sentence($project->name().', volume report', ReportPages::QUIET);
        $verdict = \sprintf('%s: %s above, %s below', $view->name, $as->volume($view->cut), $as->volume($view->fill));
        $page->sentence($verdict, ReportPages::INK, 'B', 16.0);
        $page->Ln(2.0);
        $page->sentence(\sprintf(
            '%s against %s. Cut %s over %s, fill %s over %s, net %s, over %s in plan.', ucfirst($view->of), $view->comparedTo,
            $as->volume($view->cut), $as->area($view->areaCut), $as->volume($view->fill), $as->area($view->areaFill),
            $as->volume($view->net), $as->area($view->planArea),
        ));
        $page->sentence(\sprintf(
            'Computed %s UTC by %s, run %d. Reference %s, %s. Exact on the pieces both triangulations cut each other into; '
            .'cut is where the surface lies above the other, only what both cover counts.',
            substr(strtr($view->at, 'T', ' '), 0, 16), $view->author, $view->run, $this->references->words($project), $as->lengthName(),
        ), ReportPages::QUIET);
        $leftOut = [];
        if (null === $view->isopach) {
            $leftOut[] = 'map, sections and slices: the surfaces are too large to keep what lies between them';
        } else {
            $this->map($page, $view, $as);
            $this->sections($page, $project, $view, $as);
            self::slices($page, $view, $as);
        }
        self::haul($page, $view, $as, $this->volumes->capacity($project));
        $versions = array_map(
            static fn (string $what, string $version): string => $what.' '.substr($version, 0, 12), array_keys($result->inputs),
            $result->inputs,
        );
        $page->Ln(8.0);
        $page->sentence('Input versions: '.implode(', ', $versions).'.', ReportPages::QUIET, '', 7.0);

        return [$page, $leftOut];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        [$view] = $this->chosen($project, $surfaces);
        $as = new Shown($project);
        $text = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $figures = [$as->volume($view->cut), $as->volume($view->fill), $as->volume($view->net)];
        $there = array_filter($figures, static fn (string $f): bool => str_contains($text, $f));
        $hauls = array_filter($view->haul, static fn (HaulView $h): bool => str_contains($text, $h->material));

        return [
            Check::count('cut, fill and net', \count($figures), \count($there)),
            Check::count('materials', \count($view->haul), \count($hauls)),
        ];
    }

    private function map(ReportPages $page, VolumeView $view, Shown $as): void
    {
        $tin = MeshCodec::decode($this->store->get((string) $view->isopach));
        $step = RoundNumber::atLeast(max($view->thickest, $view->deepest, 1e-6) / 3.0);
        $limits = [-2.0 * $step, -$step, -self::NOTHING * $step, self::NOTHING * $step, $step, 2.0 * $step];
        $page->heading('Cut and fill');
        $picture = new ReportPicture($page, [min($tin->x), min($tin->y), max($tin->x), max($tin->y)], 300.0);
        $picture->surface($tin, $limits, self::COLOURS);
        $contours = $this->contours($view);
        foreach ($contours as $level) {
            foreach ($level['lines'] as $line) {
                $isZero = 0.0 === (float) $level['h'];
                $picture->line($line, $isZero ? ReportPages::INK : ReportPages::QUIET, $isZero ? 1.1 : 0.3);
            }
        }
        if ([] !== $view->boundary) {
            $picture->line(array_merge(...array_values($view->boundary), ...[$view->boundary[0]]), ReportPages::GOOD, 0.9, '4,3');
        }
        $labels = array_map(static fn (float $l): string => ($l > 0.0 ? '+' : '').$as->length($l), $limits);
        $picture->legend(self::COLOURS, $labels, $as->length.', above less below; black: no difference');
    }

    /** Two sections through the middle of the area, west to east and south to north. */
    private function sections(ReportPages $page, Project $project, VolumeView $view, Shown $as): void
    {
        $current = $this->results->current($project);
        $tin = static fn (?Result $r, FileStore $store): ?Tin => null === $r ? null : MeshCodec::decode($store->get($r->output));
        $upper = $tin($current['surface:'.$view->surface] ?? null, $this->store);
        $isopach = MeshCodec::decode($this->store->get((string) $view->isopach));
        if (null === $upper) {
            return;
        }
        $lower = match ($view->against) {
            VolumeSettings::SURFACE => $tin($current['surface:'.$view->other] ?? null, $this->store),
            VolumeSettings::RIM => RimSurface::of($upper),
            default => null,
        };
        [$w, $s, $e, $n] = [min($isopach->x), min($isopach->y), max($isopach->x), max($isopach->y)];
        [$cx, $cy] = [0.5 * ($w + $e), 0.5 * ($s + $n)];
        $page->heading('Sections');
        foreach ([
            \sprintf('west to east at northing %s', $as->length($cy)) => new SectionLine([$w, $e], [$cy, $cy]),
            \sprintf('south to north at easting %s', $as->length($cx)) => new SectionLine([$cx, $cx], [$s, $n]),
        ] as $title => $line) {
            $under = null !== $lower ? (new SurfaceSection($lower))->along($line)
                : [[[0.0, $view->elevation], [$line->length, $view->elevation]]];
            $lines = [['the surface', (new SurfaceSection($upper))->along($line)], ['compared with', $under]];
            ReportProfile::draw($page, $title, $lines, $as);
        }
    }

    private static function slices(ReportPages $page, VolumeView $view, Shown $as): void
    {
        foreach (['By depth' => $view->depths, 'By elevation' => $view->elevations] as $title => $slices) {
            $page->heading($title);
            $page->beginTable([
                ["from $as->length", 90.0, 'R'], ["to $as->length", 90.0, 'R'], ['cut '.$as->volumeUnit(), 110.0, 'R'],
                ['fill '.$as->volumeUnit(), 110.0, 'R'],
            ]);
            foreach ($slices as $s) {
                $page->row([
                    $as->length($s->from), $as->length($s->to), $as->volume($s->cut, false), $as->volume($s->fill, false),
                ]);
            }
        }
    }

    private static function haul(ReportPages $page, VolumeView $view, Shown $as, float $capacity): void
    {
        $page->heading('To carry');
        $page->sentence(\sprintf(
            'Cut as bank, fill as compacted; lorries of %s loose. With a minus: brought in.', $as->volume($capacity),
        ), ReportPages::QUIET);
        $unit = $as->volumeUnit();
        $page->beginTable([
            ['material', 130.0, 'L'], ["cut, loose $unit", 80.0, 'R'], ["makes fill $unit", 80.0, 'R'], ["over, loose $unit", 80.0, 'R'],
            ['over t', 70.0, 'R'], ['loads', 60.0, 'R'],
        ]);
        foreach ($view->haul as $h) {
            $page->row([
                $h->material, $as->volume($h->looseCut, false), $as->volume($h->makes, false), $as->volume($h->looseOver, false),
                \sprintf('%.0f', $h->massOver), (string) $h->loads,
            ]);
        }
    }

    /** @return list<array{h: float, length: float, lines: list<list<float>>}> */
    private function contours(VolumeView $view): array
    {
        /** @var list<array{h: float, length: float, lines: list<list<float>>}> $levels */
        $levels = $this->store->getJson((string) $view->contours);

        return $levels;
    }

    /**
     * @param list<int> $chosen
     *
     * @return array{VolumeView, Result}
     *
     * @throws UnusableInput
     */
    private function chosen(Project $project, array $chosen): array
    {
        foreach ($this->volumes->of($project) as $view) {
            if ($view->number === ($chosen[0] ?? 0)) {
                return [$view, $this->results->current($project)[VolumeMaker::PREFIX.$view->number]];
            }
        }

        throw new UnusableInput('/surfaces', 'choose a volume that is computed');
    }
}
