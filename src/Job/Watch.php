<?php

declare(strict_types=1);

namespace App\Job;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;

/**
 * Looks after the jobs of this machine's workers from a process of its own: prolongs the lease of work that does not report for minutes,
 * and ends a worker whose job was cancelled and does not stop, or runs longer than any work of ours should. What is stored is stored whole:
 * the database takes back what a killed worker had not finished.
 */
final class Watch
{
    /** Longest a job may run. */
    private const MOST_SECONDS = 3600;
    private const TOO_LONG = 'This took longer than an hour and was ended; nothing was kept of it. Try it with less.';
    /** Longest a cancelled job may go on before its worker is ended. */
    private const GRACE_SECONDS = 10;

    private const WORKER = 'messenger:consume';

    /** @var array<string, int> when a job was first seen to be cancelled */
    private array $cancelled = [];

    public function __construct(
        private readonly JobRepository $jobs, private readonly EntityManagerInterface $entities, private readonly ClockInterface $clock,
    ) {
    }

    public function look(): void
    {
        $this->entities->clear();
        $now = $this->clock->now();
        $running = $this->jobs->running();
        $this->cancelled = array_intersect_key($this->cancelled, array_column($running, null, 'id'));
        foreach ($running as $job) {
            if (!$job->isHere()) {
                continue;
            }
            $seconds = $now->getTimestamp() - ($job->startedAt ?? $now)->getTimestamp();
            if ($job->cancelRequested) {
                $this->cancelled[$job->id] ??= $now->getTimestamp();
            }
            if ($now->getTimestamp() - ($this->cancelled[$job->id] ?? \PHP_INT_MAX) >= self::GRACE_SECONDS) {
                $this->stop($job, Job::CANCELLED, null, $now);
            } elseif ($seconds > self::MOST_SECONDS) {
                $this->stop($job, Job::FAILED, self::TOO_LONG, $now);
            } else {
                $this->jobs->prolong($job->id, Lease::until($now));
            }
        }
    }

    private function stop(Job $job, string $state, ?string $error, \DateTimeImmutable $now): void
    {
        // It may have come to its end meanwhile, and the worker have taken up another one.
        $fresh = $this->jobs->fresh($job->id);
        if (null === $fresh || Job::RUNNING !== $fresh->state || !$fresh->isHere()) {
            return;
        }
        self::end($fresh->process());
        $this->jobs->end($fresh->id, $state, $error, $now);
    }

    /** Only what is a worker: numbers of processes are given out again. */
    private static function end(int $process): void
    {
        if (str_contains((string) @file_get_contents("/proc/$process/cmdline"), self::WORKER)) {
            posix_kill($process, \SIGKILL);
        }
    }
}
