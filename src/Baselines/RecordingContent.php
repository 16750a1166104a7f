<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** An occupation as its epochs are solved: all it recorded, whatever is trimmed. */
final class RecordingContent implements Content
{
    public function __construct(private readonly OccupationRepository $occupations)
    {
    }

    public static function kind(): string
    {
        return 'recording';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash($this->occupations->in($project, (int) $which)?->recording());
    }

    public function words(): string
    {
        return 'marker or antenna height of an occupation';
    }

    public function origin(Project $project): array
    {
        return array_map(static fn (Occupation $o): string => $o->marker.' from '.$o->file->name(), $this->occupations->of($project));
    }
}
