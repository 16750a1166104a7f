<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;
use App\Survey\Origins;
use App\Survey\Point;
use App\Survey\PointRepository;

/** What is known of check points, those of a pattern of names. */
final class CheckPointContent implements Content
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    public static function kind(): string
    {
        return 'check-points';
    }

    public function version(Project $project, string $which): string
    {
        $rows = [];
        foreach ($this->points->ofRole($project, Point::CHECK) as $p) {
            if (CheckPointSettings::takes($p, $which)) {
                $rows[] = [$p->name, $p->givenE, $p->givenN, $p->givenH, $p->known];
            }
        }

        return ContentVersions::hash($rows);
    }

    public function words(): string
    {
        return 'its check points';
    }

    public function origin(Project $project): array
    {
        return Origins::of($this->points->origins($project, Point::CHECK), 'check points');
    }
}
