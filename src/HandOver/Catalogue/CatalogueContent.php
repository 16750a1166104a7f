<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** The types of a catalogue. */
final class CatalogueContent implements Content
{
    public function __construct(private readonly CatalogueRepository $catalogues)
    {
    }

    public static function kind(): string
    {
        return 'catalogue';
    }

    public function version(Project $project, string $which): string
    {
        $kept = $this->catalogues->in($project, (int) $which);

        return ContentVersions::hash([$kept?->name(), $kept?->definition()->toArray()]);
    }

    public function words(): string
    {
        return 'its types';
    }

    public function origin(Project $project): array
    {
        return ['its types'];
    }
}
