<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Export\ReportHead;
use App\Network\Adjuster;
use App\Network\Level\LevelWords;
use App\Network\NetworkReport;
use App\Network\View\RowView;
use App\Network\View\StationView;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use App\Result\Results;
use Mensura\Fault\UnusableInput;
use Twig\Environment;

/** The adjustment report as one HTML file that needs nothing beside it: every observation, not the worst alone. */
final readonly class AdjustmentHtml implements ExportKind
{
    /** Width and height of the map, pixels. */
    private const MAP = [1040.0, 620.0];

    public function __construct(
        private NetworkReport $network,
        private Results $results,
        private ProjectReference $references,
        private LevelRuns $levels,
        private Environment $twig,
        private ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'html';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Adjustment report as HTML', 'Write the adjustment report', 'adjustment', 'html',
            'text/html; charset=utf-8', 'Adjustment report, HTML',
            'verdict, stations, every observation, what was set aside or corrected and why', 31,
        );
    }

    public function restsOn(array $chosen): array
    {
        return [['levels'], [Adjuster::SLOT]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $result = $this->results->current($project)[Adjuster::SLOT] ?? null;
        if (null === $result) {
            throw new UnusableInput('', 'there is no adjustment to report; adjust the network first');
        }
        $view = $this->network->of($project);
        $as = new Shown($project);
        $used = array_values(array_filter($view->rows, static fn (RowView $r): bool => $r->used));
        usort($used, static fn (RowView $a, RowView $b): int => abs($b->standardized ?? 0.0) <=> abs($a->standardized ?? 0.0));
        $aside = array_values(array_filter($view->rows, static fn (RowView $r): bool => !$r->used));
        $small = $as->smallUnit();
        file_put_contents($path, $this->twig->render('report/adjustment.html.twig', [
            'company' => $this->head->company($project), 'checked' => $this->head->checked($project, Adjuster::SLOT),
            'project' => $project->name(), 'run' => $view->runs[0], 'reference' => $this->references->words($project),
            'lengthName' => $as->lengthName(), 'stale' => $view->stale, 'kinds' => $view->kinds,
            'precision' => ReportWords::precision($view->settings, $as),
            'stationHeadings' => [
                'station', "easting $as->length", "northing $as->length", "height $as->length", "sd e $small",
                "sd n $small", "sd h $small", "ellipse $small", 'held',
            ],
            'stations' => array_map(static fn (StationView $s): array => [
                $s->name, $as->length($s->e), $as->length($s->n), $as->height($s->h), $as->small($s->sdE),
                $as->small($s->sdN), $as->small($s->sdH),
                $as->small($s->semiMajor).' x '.$as->small($s->semiMinor), $s->held,
            ], $view->stations),
            'aside' => array_map(static fn (RowView $r): array => [
                'cells' => ReportWords::measured($r, $as),
                'by' => $r->asideBy.', '.substr((string) $r->asideAt, 0, 10), 'reason' => $r->reason,
            ], $aside),
            'corrections' => $view->corrections,
            'map' => [] === $view->stations ? null : $map = new ReportMap($view, self::MAP[0], self::MAP[1]),
            'mapLegend' => isset($map) ? $map->legend($view) : '',
            'levels' => $this->levels->of($project, $as), 'levelHeadings' => LevelWords::SECTIONS,
            'observations' => array_map(static fn (RowView $r): array => [
                'cells' => [...ReportWords::measured($r, $as), null === $r->redundancy ? '' : \sprintf('%.2f', $r->redundancy)],
                'stands' => $r->flagged,
                'source' => $r->file.(null === $r->line ? '' : ' '.$r->line),
            ], $used),
            'versions' => array_map(
                static fn (string $what, string $version): string => $what.' '.substr($version, 0, 12),
                array_keys($result->inputs),
                $result->inputs,
            ),
        ]));

        return [];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $view = $this->network->of($project);
        $page = new \DOMDocument();
        $isRead = @$page->loadHTML((string) file_get_contents($path), \LIBXML_NOERROR);
        $text = $isRead ? $page->textContent : '';
        $as = new Shown($project);
        $isThere = static fn (StationView $s): bool => str_contains($text, $s->name)
            && str_contains($text, $as->length($s->e))
            && str_contains($text, $as->height($s->h));

        return [
            Check::count('stations with their coordinates', \count($view->stations), \count(array_filter($view->stations, $isThere))),
            Check::count('verdict', 1, (int) str_contains($text, $view->runs[0]->headline)),
            Check::count(
                'corrections',
                \count($view->corrections),
                \count(array_filter($view->corrections, static fn ($c): bool => str_contains($text, $c->words))),
            ),
        ];
    }
}
