<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** What is chosen for a hand-over to information systems. */
final class GisContent implements Content
{
    public function __construct(private readonly GisRepository $sets)
    {
    }

    public static function kind(): string
    {
        return 'gis';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash($this->sets->in($project, (int) $which)?->definition()->toArray());
    }

    public function words(): string
    {
        return 'what is chosen for it';
    }

    public function origin(Project $project): array
    {
        return ['what is chosen for it'];
    }
}
