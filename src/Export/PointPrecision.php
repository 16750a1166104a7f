<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;

/** How well points are known whose coordinates were computed; the Network stage gives it. */
interface PointPrecision
{
    /** @return array<string, array{float, float, float}> standard deviations of easting, northing, height by name, metres */
    public function of(Project $project): array;
}
