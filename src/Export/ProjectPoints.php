<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use App\Survey\PointRepository;
use App\Survey\PointRow;

/** The points a hand-over holds: those with a plan position in the project's system. */
final class ProjectPoints
{
    public function __construct(private readonly PointRepository $points)
    {
    }

    /** @return \Generator<PointRow> oldest first; e and n are there */
    public function of(Project $project): \Generator
    {
        return $this->points->onGrid($project);
    }

    /** @return list<string> */
    public function leftOut(Project $project): array
    {
        ['unplaced' => $unplaced, 'local' => $local, 'flat' => $flat] = $this->points->leftOut($project);

        return array_values(array_filter([
            0 === $unplaced ? '' : \sprintf('%d points without a plan position', $unplaced),
            0 === $local ? '' : \sprintf('%d points known only locally', $local),
            0 === $flat ? '' : \sprintf('heights of %d points that have none', $flat),
        ]));
    }
}
