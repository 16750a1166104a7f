<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Job\JobContext;
use App\Job\JobHandler;

final class DenseHandler implements JobHandler
{
    public function __construct(private readonly DenseMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'dense';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            DenseSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
