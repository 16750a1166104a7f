<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** What the coordinates and heights of a project mean. */
final class ReferenceContent implements Content
{
    public static function kind(): string
    {
        return 'reference';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash([$project->reference(), $project->heights(), $project->geoid()]);
    }

    public function words(): string
    {
        return 'the reference system';
    }

    public function origin(Project $project): array
    {
        $heights = $project->hasGeoidHeights()
            ? 'heights above '.preg_replace('/^(installed|grid):/', '', $project->geoid())
            : $project->heights().' heights';

        return [\sprintf('reference %s, %s', $project->reference(), $heights)];
    }
}
