<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Export\ReportHead;
use App\Export\ReportPages;
use App\Network\Adjuster;
use App\Network\Level\LevelsPdf;
use App\Network\NetworkReport;
use App\Network\View\NetworkView;
use App\Network\View\RowView;
use App\Network\View\StationView;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use App\Result\Results;
use Mensura\Fault\UnusableInput;
use Smalot\PdfParser\Parser;

/** The adjustment report as PDF. */
final class AdjustmentPdf implements ExportKind
{
    private const WORST_ROWS = 400;
    private const OBSERVATIONS = [
        ['kind', 70.0, 'L'], ['at', 58.0, 'L'], ['to', 50.0, 'L'], ['observed', 68.0, 'R'], ['residual', 48.0, 'R'],
        ['standardized', 46.0, 'R'],
        ['redundancy', 46.0, 'R'], ['detectable', 46.0, 'R'], ['  source', 82.0, 'L'],
    ];
    private const ASIDE = [
        ['kind', 70.0, 'L'], ['at', 58.0, 'L'], ['to', 50.0, 'L'], ['observed', 68.0, 'R'], ['residual', 48.0, 'R'],
        ['standardized', 46.0, 'R'],
        ['  set aside by', 174.0, 'L'],
    ];

    public function __construct(
        private readonly NetworkReport $network,
        private readonly Results $results,
        private readonly ProjectReference $references,
        private readonly LevelRuns $levels,
        private readonly ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'pdf';
    }

    public function about(): ExportAbout
    {
        $holds = 'verdict, stations, observations, what was set aside and why';

        return new ExportAbout(
            'Adjustment report', 'Write the adjustment report', 'adjustment', 'pdf', 'application/pdf', 'Adjustment report', $holds, 30,
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
        $used = array_values(array_filter($view->rows, static fn (RowView $r): bool => $r->used));
        usort($used, static fn (RowView $a, RowView $b): int => abs($b->standardized ?? 0.0) <=> abs($a->standardized ?? 0.0));
        $page = new ReportPages($project->name().': network adjustment, run '.$view->runs[0]->run);
        $this->head->open($page, $project, Adjuster::SLOT);
        $this->verdict($page, $project, $view);
        NetworkSketch::draw($page, $view);
        self::kinds($page, $view);
        $as = new Shown($project);
        $page->heading('A-priori precision');
        $page->sentence(ReportWords::precision($view->settings, $as));
        self::stations($page, $view, $as);
        self::aside($page, $view, $as);
        self::corrections($page, $view);
        $this->levels($page, $project, $as);
        self::observations($page, $used, $as);
        $versions = array_map(
            static fn (string $what, string $version): string => $what.' '.substr($version, 0, 12),
            array_keys($result->inputs),
            $result->inputs,
        );
        $page->Ln(10.0);
        $page->sentence('Input versions: '.implode(', ', $versions).'.', ReportPages::QUIET, '', 7.0);
        $page->Output($path, 'F');
        $more = \count($used) - self::WORST_ROWS;

        return $more > 0 ? [\sprintf('%d observations below the %d worst', $more, self::WORST_ROWS)] : [];
    }

    private function verdict(ReportPages $page, Project $project, NetworkView $view): void
    {
        $run = $view->runs[0];
        $page->sentence($project->name().', network adjustment report', ReportPages::QUIET);
        $page->sentence($run->headline, ReportPages::INK, 'B', 16.0);
        $page->Ln(2.0);
        $page->sentence(implode(' ', $run->sentences));
        $words = 'Computed %s UTC by %s. Reference %s, %s. %s %d observations, %d stations, %d redundant.';
        $how = $run->free ? 'Free network, inner constraints over the given coordinates.' : 'Held and weighted control as listed.';
        $when = substr(strtr($run->createdAt, 'T', ' '), 0, 16);
        $reference = $this->references->words($project);
        $page->sentence(
            \sprintf(
                $words, $when, $run->author, $reference, (new Shown($project))->lengthName(), $how,
                $run->observations, $run->stations, $run->redundancy,
            ),
            ReportPages::QUIET,
        );
        foreach ($run->warnings as $warning) {
            $page->sentence($warning, ReportPages::BAD, 'B');
        }
        if ([] !== $view->stale) {
            $page->sentence('This result is stale: '.implode(', ', $view->stale).'.', ReportPages::BAD, 'B');
        }
        $page->Ln(4.0);
    }

    private static function kinds(ReportPages $page, NetworkView $view): void
    {
        $page->heading('Agreement by kind');
        $page->beginTable([
            ['kind', 150.0, 'L'], ['count', 80.0, 'R'], ['redundancy', 90.0, 'R'], ['variance factor', 100.0, 'R'],
            ['    standing', 95.0, 'L'],
        ]);
        foreach ($view->kinds as $g) {
            $factor = null === $g->factor ? '' : \sprintf('%.2f', $g->factor);
            $page->row([$g->name, (string) $g->count, \sprintf('%.1f', $g->redundancy), $factor, '    '.$g->standing]);
        }
    }

    private static function stations(ReportPages $page, NetworkView $view, Shown $as): void
    {
        $page->heading('Stations');
        [$unit, $small] = [$as->length, $as->smallUnit()];
        $page->beginTable([
            ['station', 66.0, 'L'], ["easting $unit", 66.0, 'R'], ["northing $unit", 70.0, 'R'], ["height $unit", 54.0, 'R'],
            ["sd e $small", 40.0, 'R'], ["sd n $small", 40.0, 'R'], ["sd h $small", 40.0, 'R'], ["ellipse $small", 62.0, 'R'],
            ['bearing', 38.0, 'R'], ['  held', 38.0, 'L'],
        ]);
        foreach ($view->stations as $s) {
            $page->row([
                $s->name, $as->length($s->e), $as->length($s->n), $as->height($s->h), $as->small($s->sdE), $as->small($s->sdN),
                $as->small($s->sdH), $as->small($s->semiMajor).' x '.$as->small($s->semiMinor),
                \sprintf('%.0f', $s->bearing), '  '.$s->held,
            ]);
        }
    }

    private static function aside(ReportPages $page, NetworkView $view, Shown $as): void
    {
        $page->heading('Set aside');
        $aside = array_filter($view->rows, static fn (RowView $r): bool => !$r->used);
        if ([] === $aside) {
            $page->sentence('Nothing is set aside.');

            return;
        }
        $page->sentence('Kept and predicted, not used; residuals are predictions.', ReportPages::QUIET);
        $page->beginTable(self::ASIDE);
        foreach ($aside as $r) {
            $page->row([...ReportWords::measured($r, $as), '  '.$r->asideBy.', '.substr((string) $r->asideAt, 0, 10)], note: $r->reason);
        }
    }

    private static function corrections(ReportPages $page, NetworkView $view): void
    {
        if ([] === $view->corrections) {
            return;
        }
        $page->heading('Corrected');
        $page->sentence('The files keep what they say; these values stand in the place of what was recorded.', ReportPages::QUIET);
        foreach ($view->corrections as $c) {
            $count = \count($c->observations);
            $page->sentence(\sprintf(
                '%s (%d value%s): %s. %s, %s.', ucfirst($c->words), $count, 1 === $count ? '' : 's',
                '' === $c->reason ? 'no reason given' : $c->reason,
                $c->author, substr($c->createdAt, 0, 10),
            ));
        }
    }

    private function levels(ReportPages $page, Project $project, Shown $as): void
    {
        $levels = $this->levels->of($project, $as);
        if (null === $levels) {
            return;
        }
        $page->heading('Level runs');
        foreach ($levels['warnings'] as $warning) {
            $page->sentence($warning, ReportPages::BAD);
        }
        LevelsPdf::closures($page, $levels['sections'], $levels['loops']);
    }

    /** @param list<RowView> $used worst first */
    private static function observations(ReportPages $page, array $used, Shown $as): void
    {
        $page->heading('Observations, worst first');
        $words = '%d of %d used observations. ! marks a standardized residual above 3.29. Detectable: smallest bias '
            .'found with power 0.80 at level 0.001.';
        $page->sentence(\sprintf($words, min(self::WORST_ROWS, \count($used)), \count($used)), ReportPages::QUIET);
        $page->beginTable(self::OBSERVATIONS);
        foreach (\array_slice($used, 0, self::WORST_ROWS) as $r) {
            $measured = ReportWords::measured($r, $as);
            $redundancy = null === $r->redundancy ? '' : \sprintf('%.2f', $r->redundancy);
            $page->row(
                [
                    ...\array_slice($measured, 0, 5), $measured[5].($r->flagged ? ' !' : ''), $redundancy,
                    ReportWords::detectable($r, $as), '  '.$r->file.(null === $r->line ? '' : ' '.$r->line),
                ],
                $r->flagged,
            );
        }
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $view = $this->network->of($project);
        $found = array_fill_keys(
            explode(' ', (string) preg_replace('/\s+/', ' ', $text = (new Parser())->parseFile($path)->getText())),
            true,
        );
        $plain = (string) preg_replace('/\s+/', ' ', $text);
        $as = new Shown($project);
        $isThere = static fn (StationView $s): bool => str_contains($plain, $s->name)
            && isset($found[$as->length($s->e)], $found[$as->height($s->h)]);
        $factor = $view->runs[0]->varianceFactor;

        return [
            Check::count('stations with their coordinates', \count($view->stations), \count(array_filter($view->stations, $isThere))),
            Check::count('verdict', 1, (int) str_contains($plain, $view->runs[0]->headline)),
            Check::count(
                'variance factor',
                null === $factor ? 0 : 1,
                null === $factor ? 0 : (int) str_contains($plain, \sprintf('%.2f', $factor)),
            ),
        ];
    }
}
