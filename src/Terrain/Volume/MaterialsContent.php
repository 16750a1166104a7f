<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;
use Mensura\Earthworks\Material;

/** The materials a report reckons with. */
final class MaterialsContent implements Content
{
    public function __construct(private readonly MaterialListRepository $lists)
    {
    }

    public static function kind(): string
    {
        return 'materials';
    }

    public function version(Project $project, string $which): string
    {
        $list = $this->lists->of($project);

        return ContentVersions::hash([array_map(static fn (Material $m): array => (array) $m, $list->materials()), $list->capacity()]);
    }

    public function words(): string
    {
        return 'the materials';
    }

    public function origin(Project $project): array
    {
        return ['the materials of the project'];
    }
}
