<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Job\JobContext;
use App\Job\JobHandler;

final class ProcessHandler implements JobHandler
{
    public function __construct(private readonly BaselineMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'process-baselines';
    }

    public function run(JobContext $context): void
    {
        $pairs = array_values(array_map(
            static fn (mixed $ids): array => array_values(array_map(intval(...), (array) $ids)), (array) $context->payload['pairs'],
        ));
        $failed = $this->maker->make(
            $context->project, $context->authorName, $pairs, ProcessingSettings::fromArray((array) $context->payload['settings']),
            $context->report(...), $context->jobId,
        );
        $context->outcome(['failed' => $failed]);
    }
}
