<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Course\CountedStage;
use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Export\Exporter;
use App\Project\Project;
use App\Result\Result;
use App\Result\Results;

final class HandOverStage implements Stage
{
    public function __construct(private readonly Results $results)
    {
    }

    public static function place(): int
    {
        return Course::HAND_OVER;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        return CountedStage::of('handover', 'Hand-over', [Exporter::PREFIX], 'file', $current, $stale);
    }

    public function find(Project $project, string $like): array
    {
        $isIt = static fn (Result $r): bool => Exporter::kind() === $r->kind && false !== mb_stripos($r->label, $like);

        return array_values(array_map(
            static fn (Result $r): HitView => new HitView('report', $r->label, 'handed over', 'handover', (string) $r->id()),
            array_filter($this->results->current($project), $isIt),
        ));
    }
}
