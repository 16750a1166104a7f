<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Job\JobContext;
use App\Job\JobHandler;

final class OrthoHandler implements JobHandler
{
    public function __construct(private readonly OrthoMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'ortho';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            OrthoSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
