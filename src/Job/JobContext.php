<?php

declare(strict_types=1);

namespace App\Job;

use App\Project\Project;

/** What a handler knows of its job and how it reports. */
final class JobContext
{
    private const SECONDS_BETWEEN_REPORTS = 0.15;

    private float $reported = 0.0;

    /** @param array<string, mixed> $payload */
    public function __construct(
        private readonly JobRepository $jobs,
        public readonly string $jobId,
        public readonly Project $project,
        public readonly string $authorName,
        public readonly array $payload,
    ) {
    }

    /** @throws JobCancelled */
    public function report(string $stage, float $fraction): void
    {
        $now = microtime(true);
        if ($now - $this->reported < self::SECONDS_BETWEEN_REPORTS) {
            return;
        }
        $this->reported = $now;
        $this->jobs->report($this->jobId, $stage, $fraction, Lease::until(new \DateTimeImmutable()));
        if ($this->jobs->isCancelRequested($this->jobId)) {
            throw new JobCancelled();
        }
    }

    /** @param array<string, mixed> $outcome */
    public function outcome(array $outcome): void
    {
        $this->jobs->found($this->jobId, $outcome);
    }
}
