<?php

declare(strict_types=1);

namespace App\Network;

use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use App\Survey\Point;
use App\Survey\PointRepository;

final class NetworkStage implements Stage
{
    private const MOST_HITS = 15;

    public function __construct(private readonly ObservationRepository $observations, private readonly PointRepository $points)
    {
    }

    public static function place(): int
    {
        return Course::NETWORK;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $result = $current[Adjuster::SLOT] ?? null;
        $count = $this->observations->countOf($project);
        $run = null === $result ? null : AdjustmentSummary::of($result);
        [$state, $caption] = match (true) {
            0 === $count => ['empty', '—'],
            null === $run => ['ready', "$count observations"],
            isset($stale[Adjuster::SLOT]) => ['stale', 'stale'],
            $run->flagged > 0 => ['attention', $run->flagged.' to look at'],
            false === $run->passed() => ['attention', 'test fails'],
            default => ['done', null === $run->test ? 'untested' : 'test holds'],
        };

        return new StageView('network', 'Network', $state, $caption);
    }

    public function find(Project $project, string $like): array
    {
        $points = array_map(
            static fn (Point $p): HitView => new HitView('point', $p->name, $p->role.' point', 'network', $p->name),
            $this->points->like($project, $like, self::MOST_HITS),
        );
        $observations = array_map(static function (Observation $o): HitView {
            $label = $o->fromName.('' === $o->setName ? '' : '/'.$o->setName).' → '.$o->toName;

            return new HitView('observation', $label, $o->kind, 'network', (string) $o->id());
        }, $this->observations->like($project, $like, self::MOST_HITS));

        return [...$points, ...$observations];
    }
}
