<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Job\JobContext;
use App\Job\JobHandler;

final class CheckPointHandler implements JobHandler
{
    public function __construct(private readonly CheckPointMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'check';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            CheckPointSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
