<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Job\JobContext;
use App\Job\JobHandler;

final class VolumeHandler implements JobHandler
{
    public function __construct(private readonly VolumeMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'volume';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            VolumeSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
