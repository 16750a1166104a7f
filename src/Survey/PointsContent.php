<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Result\Content;

final class PointsContent implements Content
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    public static function kind(): string
    {
        return 'points';
    }

    public function version(Project $project, string $which): string
    {
        return $this->points->version($project, 'name, code, role, e, n, h, known', '', 'id');
    }

    public function words(): string
    {
        return 'coordinates of points';
    }

    public function origin(Project $project): array
    {
        return Origins::of($this->points->origins($project, Point::SURVEYED), 'points');
    }
}
