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
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            DeviationSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
