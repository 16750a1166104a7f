<?php

declare(strict_types=1);

namespace App\Course;

use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Result\Result;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** One station of the course, from field files to hand-over: how it stands, and what it finds by name. */
#[AutoconfigureTag('app.stage')]
interface Stage
{
    /** Place on the course; those of the stages to come are free: {@see Course}. */
    public static function place(): int;

    /**
     * @param array<string, Result>       $current newest results by slot
     * @param array<string, list<string>> $stale   reasons by slot
     */
    public function state(Project $project, array $current, array $stale): StageView;

    /**
     * @param string $like part of a name, as it is typed
     *
     * @return list<HitView>
     */
    public function find(Project $project, string $like): array;
}
