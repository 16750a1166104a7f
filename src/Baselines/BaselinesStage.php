<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Result;
use Mensura\Gnss\BaselineSolution;

final class BaselinesStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly OccupationRepository $occupations)
    {
    }

    public static function place(): int
    {
        return Course::BASELINES;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $runs = array_filter($current, static fn (Result $r): bool => str_starts_with($r->slot, Slots::STATIC));
        $old = array_filter(array_keys($stale), static fn (string $slot): bool => str_starts_with($slot, Slots::STATIC));
        $float = array_filter(
            $runs,
            static fn (Result $r): bool => BaselineSolution::FIXED !== $r->summary['solution'] && true !== ($r->summary['moves'] ?? false),
        );
        [$state, $caption] = match (true) {
            [] !== $old => ['stale', \count($old).' stale'],
            [] !== $float => ['attention', \count($float).' not fixed'],
            [] !== $runs => ['done', \count($runs).' baseline'.(1 === \count($runs) ? '' : 's')],
            0 < $count = $this->occupations->count(['project' => $project->id()]) => [
                'ready', $count.' occupation'.(1 === $count ? '' : 's'),
            ],
            default => ['empty', '—'],
        };

        return new StageView('baselines', 'Baselines', $state, $caption);
    }

    public function find(Project $project, string $like): array
    {
        return array_map(
            static fn (Occupation $o): HitView => new HitView('occupation', $o->marker, $o->file->name(), 'baselines', (string) $o->id()),
            $this->occupations->like($project, $like, self::MOST_HITS),
        );
    }
}
