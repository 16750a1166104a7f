<?php

declare(strict_types=1);

namespace App\Network;

use App\Job\JobContext;
use App\Job\JobHandler;
use Mensura\Fault\UnusableInput;

final class AdjustHandler implements JobHandler
{
    public function __construct(private readonly Adjuster $adjuster)
    {
    }

    public static function kind(): string
    {
        return 'adjust';
    }

    public function run(JobContext $context): void
    {
        try {
            $this->adjuster->run($context->project, $context->authorName, $context->report(...), $context->jobId);
        } catch (UnusableInput $e) {
            $context->outcome(['fault' => $e->kind]);
            throw $e;
        }
    }
}
