<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Job\JobContext;
use App\Job\JobHandler;

final class SurfaceHandler implements JobHandler
{
    public function __construct(private readonly SurfaceMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'surface';
    }

    public function run(JobContext $context): void
    {
        $this->maker->make(
            $context->project, $context->authorName, (int) $context->payload['surface'], $context->report(...),
            $context->jobId,
        );
    }
}
