<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\Flight\FlightMaker;
use App\Clouds\Flight\OrthoMaker;
use App\Clouds\Group\DenseMaker;
use App\Clouds\Pass\PassMaker;
use App\Course\CountedStage;
use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Results;

final class CloudsStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly Results $results)
    {
    }

    public static function place(): int
    {
        return Course::CLOUDS;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $kinds = [CloudMaker::PREFIX, PassMaker::PREFIX, FlightMaker::PREFIX, OrthoMaker::PREFIX, DenseMaker::PREFIX];

        return CountedStage::of('clouds', 'Clouds', $kinds, 'result', $current, $stale);
    }

    public function find(Project $project, string $like): array
    {
        $hits = [];
        foreach ($this->results->current($project) as $slot => $result) {
            $name = (string) ($result->summary['name'] ?? '');
            if (str_starts_with($slot, CloudMaker::PREFIX) && false !== mb_stripos($name, trim($like, '%'))) {
                $hits[] = new HitView('cloud', $name, 'point cloud', 'clouds', (string) $result->number());
            }
        }

        return \array_slice($hits, 0, self::MOST_HITS);
    }
}
