<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Job\JobContext;
use App\Job\JobHandler;

final class FlightHandler implements JobHandler
{
    public function __construct(private readonly FlightMaker $maker)
    {
    }

    public static function kind(): string
    {
        return 'flight';
    }

    public function run(JobContext $context): void
    {
        $number = $context->payload['number'];
        $context->outcome(['number' => $this->maker->make(
            $context->project, $context->authorName, null === $number ? null : (int) $number,
            FlightSettings::fromArray((array) $context->payload['settings']), $context->report(...), $context->jobId,
        )]);
    }
}
