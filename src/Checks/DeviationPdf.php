<?php

declare(strict_types=1);

namespace App\Checks;

use App\Checks\View\DeviationView;
use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Export\Report;
use App\Export\ReportHead;
use App\Export\ReportPages;
use App\Export\ReportPicture;
use App\Export\WritesPages;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Fault\UnusableInput;
use Smalot\PdfParser\Parser;

/** The deviation report: verdict, map with its key, bands, worst places, what was left out and why. */
final readonly class DeviationPdf implements OffersChoice, Report
{
    use WritesPages;

    private const WORST = 40;
    private const LEFT_OUT = 40;

    public function __construct(
        private ChecksPage $checks, private BandsRepository $bands, private Results $results, private FileStore $store,
        private ProjectReference $references,
        private ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'deviation-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Deviation report', 'Write the deviation report', 'deviations', 'pdf', 'application/pdf', 'Deviation report',
            'verdict, map, bands, worst places, what was left out', 41, 1,
        );
    }

    public function choices(Project $project): array
    {
        return array_column($this->checks->of($project)->deviations, 'name', 'number');
    }

    public function restsOn(array $surfaces): array
    {
        $number = $surfaces[0] ?? 0;

        return [[BandsContent::kind().':'.$number], [DeviationMaker::PREFIX.$number]];
    }

    public function pages(Project $project, array $surfaces): array
    {
        $view = $this->chosen($project, $surfaces);
        $as = new Shown($project);
        /** @var array{names: list<string>, e: list<float>, n: list<float>, h: list<float>, d: list<?float>} $points */
        $points = $this->store->getJson($view->output);
        $deviations = array_map(static fn (?float $d): float => $d ?? \NAN, $points['d']);
        $bands = $this->bands->of($project, $view->number);
        $rows = (new DeviationStatistics($deviations, $view->ignore, $bands->limits()))->bands;
        $mm = $as->smallUnit();
        $page = new ReportPages($project->name().': deviations of '.$view->name);
        $this->head->open($page, $project, 'deviation:'.$view->number);
        $page->sentence($project->name().', deviation report', ReportPages::QUIET);
        $page->sentence(self::verdict($view, $rows, $as), ReportPages::INK, 'B', 16.0);
        $page->Ln(2.0);
        $page->sentence(self::figures($view, $as));
        $page->sentence(\sprintf(
            'Against %s, %s%s. Compared %s UTC by %s, run %d. Reference %s.', $view->against,
            'normal' === $view->along ? 'along its normal' : 'vertically',
            '' === $view->measuredOn ? '' : ', measured on '.$view->measuredOn,
            substr(strtr($view->at, 'T', ' '), 0, 16), $view->author, $view->run, $this->references->words($project),
        ), ReportPages::QUIET);
        $page->heading('Map');
        self::map($page, $points, $deviations, $view, $bands, $as);
        $page->heading('Bands');
        $page->beginTable([
            ["from $mm", 90.0, 'R'], ["to $mm", 90.0, 'R'], ['points', 80.0, 'R'], ['share', 80.0, 'R'], ['   ', 120.0, 'L'],
        ]);
        foreach (array_reverse($rows) as $b) {
            $isTolerance = (null === $b['from'] || $b['from'] <= 0.0) && (null === $b['to'] || $b['to'] > 0.0);
            $page->row([
                null === $b['from'] ? 'below' : $as->small($b['from'], true), null === $b['to'] ? 'above' : $as->small($b['to'], true),
                (string) $b['count'], \sprintf('%.1f %%', $b['percent']), $isTolerance ? '   tolerance' : '',
            ]);
        }
        $this->places($page, $points, $deviations, $view, $as);
        $page->Ln(8.0);
        $inputs = $this->results->current($project)[DeviationMaker::PREFIX.$view->number]->inputs;
        $versions = array_map(
            static fn (string $what, string $version): string => explode(':', $what)[0].' '.substr($version, 0, 12),
            array_keys($inputs), $inputs,
        );
        $page->sentence('Input versions: '.implode(', ', $versions).'.', ReportPages::QUIET, '', 7.0);

        return [$page, []];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        $view = $this->chosen($project, $surfaces);
        $as = new Shown($project);
        $text = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $small = static fn (?float $v): string => null === $v ? '' : $as->small($v, true);
        $figures = array_map($small, [$view->mean, $view->min, $view->max]);
        $there = array_filter($figures, static fn (string $f): bool => str_contains($text, $f));

        return [
            Check::count('mean and extremes', \count($figures), \count($there)),
            Check::count('points compared', 1, (int) str_contains($text, \sprintf('%d of %d points', $view->used, $view->measured))),
        ];
    }

    /** @param list<array{from: ?float, to: ?float, count: int, percent: float}> $bands */
    private static function verdict(DeviationView $view, array $bands, Shown $as): string
    {
        foreach ($bands as $b) {
            if ((null === $b['from'] || $b['from'] <= 0.0) && (null === $b['to'] || $b['to'] > 0.0) && $view->used > 0) {
                $edge = static fn (?float $v): string => null === $v ? '...' : $as->small($v, true);
                $range = null !== $b['from'] && null !== $b['to'] && abs($b['from'] + $b['to']) < 1e-9
                    ? '±'.$as->small($b['to']) : $edge($b['from']).' to '.$edge($b['to']);

                return \sprintf('%.1f %% of %s lies within %s %s', $b['percent'], $view->name, $range, $as->smallUnit());
            }
        }

        return \sprintf('Nothing of %s could be compared', $view->name);
    }

    private static function figures(DeviationView $view, Shown $as): string
    {
        $small = static fn (?float $v, bool $isSigned = true): string => null === $v ? '-' : $as->small($v, $isSigned);
        $left = [];
        if ($view->beyond > 0) {
            $left[] = \sprintf('%d beyond %s %s', $view->beyond, $small($view->ignore, false), $as->smallUnit());
        }
        if ($view->outside > 0) {
            $left[] = \sprintf('%d beside the reference', $view->outside);
        }

        return \sprintf(
            'Mean %s, rms %s, sd %s, from %s to %s %s. %d of %d points compared%s.', $small($view->mean), $small($view->rms, false),
            $small($view->sd, false), $small($view->min), $small($view->max), $as->smallUnit(), $view->used, $view->measured,
            [] === $left ? '' : '; left out: '.implode(', ', $left),
        );
    }

    /**
     * @param array{names: list<string>, e: list<float>, n: list<float>, h: list<float>, d: list<?float>} $points
     * @param list<float>                                                                                 $deviations
     */
    private static function map(ReportPages $page, array $points, array $deviations, DeviationView $view, Bands $bands, Shown $as): void
    {
        $limits = $bands->limits();
        $isLeft = static fn (float $d): bool => is_nan($d) || null !== $view->ignore && abs($d) > $view->ignore;
        $band = array_map(static fn (float $d): int => $isLeft($d) ? -1 : DeviationStatistics::band($limits, $d), $deviations);
        [$e, $n] = [$points['e'], $points['n']];
        [$w, $s, $east, $north] = [min($e), min($n), max($e), max($n)];
        $size = max(0.01, sqrt(max($east - $w, 1e-3) * max($north - $s, 1e-3)) / max(1.0, sqrt(\count($e)) - 1.0));
        $pad = 0.6 * $size;
        $picture = new ReportPicture($page, [$w - $pad, $s - $pad, $east + $pad, $north + $pad], 360.0);
        $picture->squares($e, $n, $band, $size, $bands->colours());
        $worst = null;
        foreach ($deviations as $i => $d) {
            if ($band[$i] >= 0 && (null === $worst || abs($d) > abs($deviations[$worst]))) {
                $worst = $i;
            }
        }
        if (null !== $worst) {
            $picture->word($e[$worst], $n[$worst], $as->small($deviations[$worst], true));
        }
        $labels = array_map(static fn (float $l): string => $as->small($l, true), $limits);
        $picture->legend($bands->colours(), $labels, $as->smallUnit().', measured less reference; hollow: left out');
    }

    /**
     * @param array{names: list<string>, e: list<float>, n: list<float>, h: list<float>, d: list<?float>} $points
     * @param list<float>                                                                                 $deviations
     */
    private function places(ReportPages $page, array $points, array $deviations, DeviationView $view, Shown $as): void
    {
        $counts = static fn (float $d): bool => !is_nan($d) && (null === $view->ignore || abs($d) <= $view->ignore);
        $used = array_filter($deviations, $counts);
        uasort($used, static fn (float $a, float $b): int => abs($b) <=> abs($a));
        $left = array_keys(array_filter($deviations, static fn (float $d): bool => !$counts($d)));
        $columns = [
            ['point', 120.0, 'L'], ["easting $as->length", 100.0, 'R'], ["northing $as->length", 100.0, 'R'],
            ["height $as->length", 80.0, 'R'], ['off '.$as->smallUnit(), 80.0, 'R'],
        ];
        foreach ([
            'Worst places' => \array_slice(array_keys($used), 0, self::WORST), 'Left out' => \array_slice($left, 0, self::LEFT_OUT),
        ] as $title => $which) {
            if ([] === $which) {
                continue;
            }
            $isCut = 'Left out' === $title && \count($left) > self::LEFT_OUT;
            $page->heading($isCut ? \sprintf('Left out, %d of %d', self::LEFT_OUT, \count($left)) : $title);
            $page->beginTable($columns);
            foreach ($which as $i) {
                $page->row([
                    // A place of a cloud or a surface has no name: its number then, as on the page.
                    $points['names'][$i] ?? (string) ($i + 1), $as->length($points['e'][$i]), $as->length($points['n'][$i]),
                    $as->height($points['h'][$i]),
                    is_nan($deviations[$i]) ? 'beside' : $as->small($deviations[$i], true),
                ]);
            }
        }
    }

    /**
     * @param list<int> $chosen
     *
     * @throws UnusableInput
     */
    private function chosen(Project $project, array $chosen): DeviationView
    {
        foreach ($this->checks->of($project)->deviations as $view) {
            if ($view->number === ($chosen[0] ?? 0)) {
                return $view;
            }
        }

        throw new UnusableInput('/surfaces', 'choose a comparison that is computed');
    }
}
