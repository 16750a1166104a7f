<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;

/** How a sheet is laid out, and what its views show. */
final class SheetContent implements Content
{
    public function __construct(private readonly SheetRepository $sheets, private readonly SavedViewRepository $views)
    {
    }

    public static function kind(): string
    {
        return 'sheet';
    }

    public function version(Project $project, string $which): string
    {
        $sheet = $this->sheets->in($project, (int) $which);
        $views = array_map(
            fn (array $w): ?array => $this->views->in($project, $w['view'])?->definition()->toArray(), $sheet?->definition()->windows ?? [],
        );

        return ContentVersions::hash([$sheet?->definition()->toArray(), $views]);
    }

    public function words(): string
    {
        return 'its layout and views';
    }

    public function origin(Project $project): array
    {
        return ['its layout and views'];
    }
}
