<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Job\JobContext;
use App\Job\JobHandler;

final class EpochsHandler implements JobHandler
{
    public function __construct(private readonly EpochScatter $scatter)
    {
    }

    public static function kind(): string
    {
        return 'epochs';
    }

    public function run(JobContext $context): void
    {
        $this->scatter->make(
            $context->project, $context->authorName, (int) $context->payload['base'], (int) $context->payload['rover'],
            ProcessingSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        );
    }
}
