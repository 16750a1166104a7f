<?php

declare(strict_types=1);

namespace App\Checks;

use App\Course\CountedStage;
use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Results;

final class ChecksStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly Results $results)
    {
    }

    public static function place(): int
    {
        return Course::CHECKS;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        return CountedStage::of('checks', 'Checks', DeviationMaker::PREFIX, 'comparison', $current, $stale);
    }

    public function find(Project $project, string $like): array
    {
        $hits = [];
        foreach ($this->results->current($project) as $slot => $result) {
            $name = (string) ($result->summary['name'] ?? '');
            if (str_starts_with($slot, DeviationMaker::PREFIX) && false !== mb_stripos($name, $like)) {
                $hits[] = new HitView('comparison', $name, 'comparison', 'checks', (string) $result->number());
            }
        }

        return \array_slice($hits, 0, self::MOST_HITS);
    }
}
