<?php

declare(strict_types=1);

namespace App\Job;

use Doctrine\DBAL\Exception as DatabaseFault;
use Doctrine\ORM\EntityManagerInterface;

/**
 * Prolongs the lease of the job under way from a timer, so that work which does not report for minutes is not taken for
 * dead; ends it where it was cancelled or runs longer than any work of ours should. Never in the middle of a
 * transaction: what is being stored is stored whole.
 */
final class Heartbeat
{
    /** Longest a job may run. */
    private const MOST_SECONDS = 3600;

    public function __construct(private readonly JobRepository $jobs, private readonly EntityManagerInterface $entities)
    {
    }

    /** @param \Closure(): void $work */
    public function during(string $job, \Closure $work): void
    {
        if (!\function_exists('pcntl_alarm')) {
            $work(); // reports alone keep the lease, on a PHP without signals

            return;
        }
        $started = time();
        pcntl_async_signals(true);
        pcntl_signal(\SIGALRM, function () use ($job, $started): void {
            pcntl_alarm(Lease::HEARTBEAT_SECONDS);
            $this->beat($job, time() - $started);
        });
        pcntl_alarm(Lease::HEARTBEAT_SECONDS);
        try {
            $work();
        } finally {
            pcntl_alarm(0);
            pcntl_signal(\SIGALRM, \SIG_DFL);
        }
    }

    private function beat(string $job, int $seconds): void
    {
        if ($this->entities->getConnection()->isTransactionActive()) {
            return;
        }
        try {
            $this->jobs->prolong($job, Lease::until(new \DateTimeImmutable()));
            $cancelled = $this->jobs->isCancelRequested($job);
        } catch (DatabaseFault) {
            return; // a busy database: the lease outlasts several beats
        }
        if ($cancelled) {
            throw new JobCancelled();
        }
        if ($seconds > self::MOST_SECONDS) {
            throw new JobTooLong(self::MOST_SECONDS);
        }
    }
}
