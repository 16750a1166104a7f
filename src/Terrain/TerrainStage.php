<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Course\CountedStage;
use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;

final class TerrainStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly SurfaceRepository $surfaces)
    {
    }

    public static function place(): int
    {
        return Course::TERRAIN;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        return CountedStage::of('terrain', 'Terrain', ['surface:'], 'surface', $current, $stale);
    }

    public function find(Project $project, string $like): array
    {
        return array_map(
            static fn (Surface $s): HitView => new HitView('surface', $s->name(), 'surface', 'terrain', (string) $s->id()),
            $this->surfaces->like($project, $like, self::MOST_HITS),
        );
    }
}
