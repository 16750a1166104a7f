<?php

declare(strict_types=1);

namespace App\Intake;

use App\Course\Course;
use App\Course\Stage;
use App\Course\View\HitView;
use App\Course\View\StageView;
use App\Project\Project;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;

final class IntakeStage implements Stage
{
    private const MOST_HITS = 10;

    public function __construct(private readonly SurveyFileRepository $files)
    {
    }

    public static function place(): int
    {
        return Course::INTAKE;
    }

    public function state(Project $project, array $current, array $stale): StageView
    {
        $counts = $this->files->counts($project);
        $waiting = $counts[SurveyFile::WAITING] ?? 0;
        $accepted = $counts[SurveyFile::ACCEPTED] ?? 0;

        return match (true) {
            $waiting > 0 => new StageView('intake', 'Intake', 'attention', "$waiting to accept"),
            $accepted > 0 => new StageView('intake', 'Intake', 'done', $accepted.(1 === $accepted ? ' file' : ' files')),
            default => new StageView('intake', 'Intake', 'ready', 'bring files'),
        };
    }

    public function find(Project $project, string $like): array
    {
        return array_map(
            static fn (SurveyFile $f): HitView => new HitView('file', $f->name(), $f->kind(), 'intake', (string) $f->id()),
            $this->files->named($project, $like, self::MOST_HITS),
        );
    }
}
