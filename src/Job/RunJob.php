<?php

declare(strict_types=1);

namespace App\Job;

/** Asks a worker to take up a job. */
final readonly class RunJob
{
    public function __construct(public string $jobId)
    {
    }
}
