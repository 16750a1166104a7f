<?php

declare(strict_types=1);

namespace App\Reference;

use App\Course\Course;
use App\Course\Stage;
use App\Course\View\StageView;
use App\Project\Project;

final class ReferenceStage implements Stage
{
    public static function place(): int
    {
        return Course::REFERENCE;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $code = str_starts_with($project->reference(), 'EPSG:') ? substr($project->reference(), 5) : 'own';
        $caption = $project->isPlane()
            ? 'plane · '.$project->heights()
            : $code.' · '.('ellipsoidal' === $project->heights() ? 'ellips.' : 'geoid');

        return new StageView('reference', 'Reference', 'done', $caption);
    }

    public function find(Project $project, string $like): array
    {
        return [];
    }
}
