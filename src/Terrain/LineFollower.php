<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Reference\FollowsReference;
use App\Reference\Step;
use App\Result\Results;
use App\Terrain\Section\SectionMaker;
use App\Terrain\Volume\VolumeMaker;

/** Boundaries of volumes and lines of sections were drawn in project coordinates; made again, they are where they were drawn. */
final class LineFollower implements FollowsReference
{
    private const LINES = [VolumeMaker::PREFIX => 'boundary', SectionMaker::PREFIX => 'line'];

    public function __construct(private readonly Results $results)
    {
    }

    public function moved(Project $project, \Closure $place, Step $step): void
    {
        foreach ($this->results->current($project) as $slot => $result) {
            foreach (self::LINES as $prefix => $key) {
                if (str_starts_with($slot, $prefix) && [] !== ($result->settings[$key] ?? [])) {
                    $result->settings[$key] = array_map(
                        static fn (array $v): array => $place($result->inWords(), (float) $v[0], (float) $v[1]), $result->settings[$key],
                    );
                }
            }
        }
    }
}
