<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Result\Content;

/** What is given of control and check points; where they come to lie by an adjustment is not part of it. */
final class GivenContent implements Content
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    public static function kind(): string
    {
        return 'given';
    }

    public function version(Project $project, string $which): string
    {
        return $this->points->version($project, 'name, role, given_e, given_n, given_h', "AND role IN ('control', 'check')", 'name');
    }

    public function words(): string
    {
        return 'given coordinates';
    }

    public function origin(Project $project): array
    {
        return [
            ...Origins::of($this->points->origins($project, Point::CONTROL), 'control marks'),
            ...Origins::of($this->points->origins($project, Point::CHECK), 'check points'),
        ];
    }
}
