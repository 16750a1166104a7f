<?php

declare(strict_types=1);

namespace App\Export;

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
        $chosen = array_values(array_map(intval(...), $context->payload['surfaces'] ?? []));
        $kind = (string) $context->payload['kind'];
        $this->exporter->export($context->project, $context->authorName, $kind, $chosen, $context->report(...), $context->jobId);
    }
}
