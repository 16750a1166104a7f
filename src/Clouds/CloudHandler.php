<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Job\JobContext;
use App\Job\JobHandler;

final class CloudHandler implements JobHandler
{
    public function __construct(private readonly CloudMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'cloud';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            CloudSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
