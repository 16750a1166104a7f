<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** The definition of a surface. */
final class SurfaceContent implements Content
{
    public function __construct(private readonly SurfaceRepository $surfaces)
    {
    }

    public static function kind(): string
    {
        return 'surface';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash($this->surfaces->in($project, (int) $which)?->definition()->toArray());
    }

    public function words(): string
    {
        return 'its definition';
    }

    public function origin(Project $project): array
    {
        return ['its definition'];
    }
}
