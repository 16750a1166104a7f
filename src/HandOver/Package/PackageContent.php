<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** What is chosen for a package. */
final class PackageContent implements Content
{
    public function __construct(private readonly PackageRepository $packages)
    {
    }

    public static function kind(): string
    {
        return 'package';
    }

    public function version(Project $project, string $which): string
    {
        $package = $this->packages->in($project, (int) $which);

        return ContentVersions::hash([$package?->name(), $package?->definition()->toArray()]);
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
