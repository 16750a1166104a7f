<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

final readonly class LevelsContent implements Content
{
    public function __construct(private LevelRunRepository $runs, private LevelDesk $desk, private LevelBookSettingsRepository $settings)
    {
    }

    public static function kind(): string
    {
        return 'levels';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash([
            array_map(static fn (LevelRun $r): array => [$r->name, $r->pattern, $r->rows], $this->runs->all($project)),
            $this->settings->of($project)->settings, $this->desk->benchmarks($project),
        ]);
    }

    public function words(): string
    {
        return 'levelling book';
    }

    public function origin(Project $project): array
    {
        return array_map(
            static fn (LevelRun $r): string => \sprintf('run %s, %d sights', $r->name, \count($r->rows)), $this->runs->all($project),
        );
    }
}
