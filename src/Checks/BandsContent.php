<?php

declare(strict_types=1);

namespace App\Checks;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** The bands a comparison is reported in. */
final class BandsContent implements Content
{
    public function __construct(private readonly BandsRepository $bands)
    {
    }

    public static function kind(): string
    {
        return 'bands';
    }

    public function version(Project $project, string $which): string
    {
        $bands = $this->bands->of($project, (int) $which);

        return ContentVersions::hash([$bands->limits(), $bands->colours()]);
    }

    public function words(): string
    {
        return 'its bands';
    }

    public function origin(Project $project): array
    {
        return ['its tolerance bands'];
    }
}
