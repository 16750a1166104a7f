<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\View\ComparisonView;
use App\Network\View\CorrectionView;
use App\Network\View\NetworkView;
use App\Network\View\RelativeView;
use App\Network\View\RowView;
use App\Network\View\RunView;
use App\Network\View\ShiftView;
use App\Network\View\StationView;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use App\Survey\AcceptedCoordinates;
use App\Survey\Correction;
use App\Survey\CorrectionRepository;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use App\Survey\ObservationRow;
use App\Survey\PointRepository;

/** The network stage as it is shown and reported: observations with their newest statistics, stations, verdict, comparison. */
final class NetworkReport
{
    private const ANGULAR = ['direction', 'zenith', 'azimuth', 'angle'];
    private const CONFIDENCE = 0.95;

    public function __construct(
        private readonly ObservationRepository $observations,
        private readonly CorrectionRepository $corrections,
        private readonly PointRepository $points,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    public function of(Project $project): NetworkView
    {
        $runs = $this->results->runs($project, Adjuster::SLOT);
        $newest = [] === $runs ? null : StoredAdjustment::of($this->store, $runs[0]);
        $before = isset($runs[1]) ? StoredAdjustment::of($this->store, $runs[1]) : null;
        $confidence = self::confidence($runs[0] ?? null);
        $rows = $this->rows($project, $newest);
        $stations = null === $newest ? [] : $this->stations($project, $newest, $before);
        $kinds = null === $newest ? [] : Verdict::kinds($newest->groups, $confidence);
        $setups = null === $newest ? [] : Verdict::setups($rows, $confidence);
        $flagged = \count(array_filter($rows, static fn (RowView $r): bool => $r->flagged && $r->used));
        $runViews = [];
        foreach ($runs as $i => $run) {
            $summary = AdjustmentSummary::of($run);
            [$headline, $sentences] = 0 === $i
                ? Verdict::words($run->run, $summary, $kinds, $setups, $flagged, $confidence)
                : [\sprintf('Adjustment %d', $run->run), []];
            $runViews[] = self::run($run, $summary, $headline, $sentences);
        }
        $worst = null;
        foreach ($stations as $s) {
            $worst = null === $worst || $s->semiMajor > $worst->semiMajor ? $s : $worst;
        }

        return new NetworkView(
            NetworkSettings::of($project), NetworkSettings::version($project), $rows, $stations, $kinds, $setups, $runViews,
            $this->results->stale($project)[Adjuster::SLOT] ?? [], self::comparison($runs, $newest, $before),
            $this->isAccepted($project, $runs),
            $worst?->semiMajor, $worst?->name, $this->corrections($project),
            array_map(static fn (array $r): RelativeView => new RelativeView(...$r), $newest->relative ?? []),
        );
    }

    private static function confidence(?Result $run): float
    {
        return (float) ($run->settings['confidence'] ?? self::CONFIDENCE);
    }

    /** @param list<Result> $runs */
    private function isAccepted(Project $project, array $runs): bool
    {
        $accepted = $this->results->current($project)[AcceptedCoordinates::SLOT] ?? null;

        return null !== $accepted && [] !== $runs && ($accepted->inputs[Result::RESULT.Adjuster::SLOT] ?? null) === $runs[0]->output;
    }

    /** @param list<string> $sentences */
    private static function run(Result $run, AdjustmentSummary $s, string $headline, array $sentences): RunView
    {
        return new RunView(
            $run->id(), $run->run, $run->at(), $run->authorName, $s->passed(), $s->converged, $s->varianceFactor,
            null === $s->test ? null : $s->test['lower'] / $s->redundancy, null === $s->test ? null : $s->test['upper'] / $s->redundancy,
            $s->redundancy, $s->observations, $s->stations, $s->aside, (bool) ($run->settings['free'] ?? false), self::confidence($run),
            $headline, $sentences, $s->warnings,
        );
    }

    /** @return list<RowView> */
    private function rows(Project $project, ?StoredAdjustment $adjustment): array
    {
        $views = [];
        foreach ($this->observations->rows($project) as $o) {
            $scalars = 'vector' === $o->kind ? ['dx' => $o->v1, 'dy' => (float) $o->v2, 'dz' => (float) $o->v3] : ['' => $o->v1];
            foreach ($scalars as $component => $observed) {
                $views[] = self::row($o, $component, $observed, $adjustment);
            }
        }

        return $views;
    }

    private static function row(ObservationRow $o, string $component, float $observed, ?StoredAdjustment $adjustment): RowView
    {
        $s = $adjustment?->row($o->id, $component) ?? [];
        $residual = $s['residual'] ?? null;
        $isAngular = \in_array($o->kind, self::ANGULAR, true);
        // A residual angle as the length it makes at the target.
        $arm = $isAngular && null !== $residual ? $adjustment?->distance($o->from, $o->to) : null;
        $ground = match (true) {
            null === $residual => null,
            !$isAngular => 1000.0 * $residual,
            null === $arm => null,
            default => 1000.0 * deg2rad($residual) * $arm,
        };

        return new RowView(
            $o->id, '' === $component ? null : $component, $o->kind, $o->set, $o->from, $o->to, $observed, $residual,
            $ground, $s['sd'] ?? $o->sd,
            $s['standardized'] ?? null, $s['redundancyNumber'] ?? null, $s['minimalDetectable'] ?? null, $s['externalEffect'] ?? null,
            $s['flagged'] ?? false, ($o->used & (Observation::COMPONENTS[$component] ?? 1)) > 0, $o->reason, $o->asideBy,
            null === $o->asideAt ? null : strtr($o->asideAt, ' ', 'T').'Z', $o->fileId, $o->file, $o->line, $o->hi, $o->ht,
            self::recorded($o, ['' => 'v1', 'dx' => 'v1', 'dy' => 'v2', 'dz' => 'v3'][$component]), self::recorded($o, 'hi'),
            self::recorded($o, 'ht'), isset($o->recorded['to']) ? (string) $o->recorded['to'] : null, $o->face, $o->round,
            null === $o->observedAt ? null : strtr($o->observedAt, ' ', 'T').'Z', 'angle' === $o->kind ? $o->back : null,
        );
    }

    private static function recorded(ObservationRow $o, string $field): ?float
    {
        return isset($o->recorded[$field]) ? (float) $o->recorded[$field] : null;
    }

    /** @return list<CorrectionView> */
    private function corrections(Project $project): array
    {
        return array_map(static fn (Correction $c): CorrectionView => new CorrectionView(
            $c->id(), $c->cause, $c->words, $c->reason, $c->author, $c->createdAt->format('Y-m-d\TH:i:s\Z'),
            array_values(array_unique(array_column($c->changes, 'id'))),
        ), $this->corrections->all($project));
    }

    /** @return list<StationView> */
    private function stations(Project $project, StoredAdjustment $adjustment, ?StoredAdjustment $before): array
    {
        $control = $this->points->control($project);
        $views = [];
        foreach ($adjustment->stations as $name => $s) {
            $b = $before->stations[$name] ?? null;
            $views[] = new StationView(
                (string) $name, (float) $s['e'], (float) $s['n'], (float) $s['h'], $s['sd']['e'], $s['sd']['n'], $s['sd']['h'],
                $s['ellipse']['semiMajor'], $s['ellipse']['semiMinor'], $s['ellipse']['bearing'],
                $control[$name] ?? '', isset($control[$name]),
                null === $b ? null : $s['e'] - $b['e'], null === $b ? null : $s['n'] - $b['n'], null === $b ? null : $s['h'] - $b['h'],
            );
        }

        return $views;
    }

    /** @param list<Result> $runs */
    private static function comparison(array $runs, ?StoredAdjustment $newest, ?StoredAdjustment $before): ?ComparisonView
    {
        if (null === $newest || null === $before) {
            return null;
        }
        $shifts = [];
        $largest = 0.0;
        foreach ($newest->stations as $name => $s) {
            $b = $before->stations[$name] ?? null;
            if (null !== $b) {
                $shift = new ShiftView((string) $name, $s['e'] - $b['e'], $s['n'] - $b['n'], $s['h'] - $b['h']);
                $largest = max($largest, sqrt($shift->e ** 2 + $shift->n ** 2 + $shift->h ** 2));
                $shifts[] = $shift;
            }
        }
        $summary = AdjustmentSummary::of($runs[1]);

        return new ComparisonView($runs[1]->run, $summary->varianceFactor, $summary->passed(), $shifts, $largest);
    }
}
