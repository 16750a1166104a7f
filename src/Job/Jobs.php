<?php

declare(strict_types=1);

namespace App\Job;

use App\Account\User;
use App\Project\Project;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;

/** Starts, cancels and takes up again. */
final class Jobs
{
    public const MOST_ATTEMPTS = 3;
    /** A worker that has nothing to do and finds a job no one has taken up for so long asks for it again. */
    private const UNANSWERED_SECONDS = 5;

    public function __construct(
        private readonly JobRepository $jobs,
        private readonly MessageBusInterface $bus,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param array<string, mixed> $payload
     * @param ?string              $key     what the page called its request
     *
     * @return string the job's id; that of the job started before where the same request is sent again
     */
    public function start(Project $project, User $author, string $kind, string $title, array $payload = [], ?string $key = null): string
    {
        if (null !== $key && null !== $before = $this->jobs->ofRequest($project->id(), $key)) {
            return $before->id;
        }
        $id = (string) Uuid::v7();
        $owner = $this->jobs->projectNamed($project->id());
        $title = mb_substr($title, 0, 200);
        $this->jobs->add(new Job($id, $owner, $this->jobs->userNamed($author->id()), $kind, $title, $payload, $this->clock->now(), $key));
        $this->ask($id);

        return $id;
    }

    public function cancel(Project $project, string $id): void
    {
        $this->jobs->cancel($project->id(), $id);
    }

    /**
     * Puts right what a worker left behind: jobs whose lease has run out or whose process is gone are taken up again, three
     * times at most; jobs no one has answered for are asked for again. Called by a worker that has nothing to do.
     *
     * @param ?string $idle the worker that calls, which holds no job now whatever the rows say
     *
     * @return int how many were taken up again
     */
    public function takeUpAgain(?string $idle = null): int
    {
        $now = $this->clock->now();
        $count = 0;
        foreach ($this->jobs->running() as $job) {
            if (!$this->isLost($job, $now, $idle)) {
                continue;
            }
            if ($job->attempts >= self::MOST_ATTEMPTS) {
                $this->jobs->end($job->id, Job::FAILED, self::gaveUp($job), $now);
            } elseif ($this->jobs->release($job, 'taken up again')) {
                $this->ask($job->id);
                ++$count;
            }
        }
        foreach ($this->jobs->unanswered($now->modify('-'.self::UNANSWERED_SECONDS.' seconds')) as $job) {
            $this->ask($job->id);
        }

        return $count;
    }

    private function ask(string $id): void
    {
        $this->jobs->asked($id, $this->clock->now());
        $this->bus->dispatch(new RunJob($id));
    }

    private function isLost(Job $job, \DateTimeImmutable $now, ?string $idle): bool
    {
        if (null !== $idle && $idle === $job->worker) {
            return true;
        }
        if (null !== $job->leaseUntil && $job->leaseUntil < $now) {
            return true;
        }

        return str_starts_with((string) $job->worker, gethostname().':') && !$job->isHere();
    }

    private static function gaveUp(Job $job): string
    {
        return \sprintf(
            'The worker ended %d times while doing this%s, most likely for want of memory; nothing was kept of it. '
            .'Try it with less: fewer points, a larger contour interval, a part of the project.',
            $job->attempts, '' === $job->stage || 'taken up again' === $job->stage ? '' : ' ('.$job->stage.')',
        );
    }
}
