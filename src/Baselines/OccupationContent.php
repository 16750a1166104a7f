<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** An occupation as a baseline reads it: its file, marker, antenna height and what is used of it. */
final class OccupationContent implements Content
{
    public function __construct(private readonly OccupationRepository $occupations)
    {
    }

    public static function kind(): string
    {
        return 'occupation';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash($this->occupations->in($project, (int) $which)?->contents());
    }

    public function words(): string
    {
        return 'marker, antenna height or trim of an occupation';
    }

    public function origin(Project $project): array
    {
        return array_map(static fn (Occupation $o): string => \sprintf(
            '%s from %s, %s', $o->marker, $o->file->name(), $o->height()->words(),
        ), $this->occupations->of($project));
    }
}
