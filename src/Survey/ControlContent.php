<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Result\Content;

final class ControlContent implements Content
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    public static function kind(): string
    {
        return 'control';
    }

    public function version(Project $project, string $which): string
    {
        return $this->points->version($project, 'name, given_e, given_n, given_h, held, sd_e, sd_n, sd_h', "AND role = 'control'", 'name');
    }

    public function words(): string
    {
        return 'control coordinates';
    }

    public function origin(Project $project): array
    {
        return Origins::of($this->points->origins($project, Point::CONTROL), 'control marks');
    }
}
