<?php

declare(strict_types=1);

namespace App\Course;

use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Result;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** The stages in their order. */
final class Course
{
    public const INTAKE = 1;
    public const REFERENCE = 2;
    public const BASELINES = 3;
    public const NETWORK = 4;
    public const TERRAIN = 5;
    public const CLOUDS = 6;
    public const CHECKS = 7;
    public const HAND_OVER = 8;

    /** @var array<int, Stage> */
    private array $stages = [];

    /** @param iterable<Stage> $stages */
    public function __construct(#[AutowireIterator('app.stage')] iterable $stages)
    {
        foreach ($stages as $stage) {
            $this->stages[$stage::place()] = $stage;
        }
        ksort($this->stages);
    }

    /**
     * @param array<string, Result>       $current newest results by slot
     * @param array<string, list<string>> $stale   reasons by slot
     *
     * @return list<StageView>
     */
    public function states(Project $project, array $current, array $stale): array
    {
        $views = [];
        foreach ($this->stages as $stage) {
            $views[] = $stage->state($project, $current, $stale);
        }

        return $views;
    }

    /** @return list<HitView> */
    public function find(Project $project, string $like): array
    {
        return array_merge(...array_map(static fn (Stage $s): array => $s->find($project, $like), array_values($this->stages)));
    }
}
