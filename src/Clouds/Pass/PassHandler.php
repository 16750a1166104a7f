<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Job\JobContext;
use App\Job\JobHandler;

final class PassHandler implements JobHandler
{
    public function __construct(private readonly PassMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'pass';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            PassSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
