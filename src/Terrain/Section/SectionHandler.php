<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Job\JobContext;
use App\Job\JobHandler;

final class SectionHandler implements JobHandler
{
    public function __construct(private readonly SectionMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'section';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            SectionSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
