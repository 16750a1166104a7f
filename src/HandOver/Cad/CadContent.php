<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\HandOver\Catalogue\CatalogueRepository;
use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** What is chosen for a drawing, and the code table it takes colours from. */
final class CadContent implements Content
{
    public function __construct(private readonly CadRepository $sets, private readonly CatalogueRepository $catalogues)
    {
    }

    public static function kind(): string
    {
        return 'cad';
    }

    public function version(Project $project, string $which): string
    {
        $d = $this->sets->in($project, (int) $which)?->definition();
        $catalogue = null === $d || 0 === $d->catalogue ? null : $this->catalogues->in($project, $d->catalogue)?->definition();

        return ContentVersions::hash([$d?->toArray(), $catalogue?->toArray()]);
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
