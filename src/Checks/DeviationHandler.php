<?php

declare(strict_types=1);

namespace App\Checks;

use App\Job\JobContext;
use App\Job\JobHandler;

final class DeviationHandler implements JobHandler
{
    public function __construct(private readonly DeviationMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'deviation';
    }

    public function run(JobContext $context): void
    {
        $this->maker->make(
            $context->project, $context->authorName, (int) $context->payload['number'],
            DeviationSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        );
    }
}
