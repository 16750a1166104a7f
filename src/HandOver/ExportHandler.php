<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Job\JobContext;
use App\Job\JobHandler;

final class ExportHandler implements JobHandler
{
    public function __construct(private readonly Exporter $exporter)
    {
    }

    public static function kind(): string
    {
        return 'export';
    }

    public function run(JobContext $context): void
    {
        $this->exporter->export($context->project, $context->authorName, (string) $context->payload['kind'], array_values(array_map(intval(...), $context->payload['surfaces'] ?? [])), $context->report(...), $context->jobId);
    }
}
