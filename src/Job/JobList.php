<?php

declare(strict_types=1);

namespace App\Job;

use App\Job\View\JobView;
use App\Project\Project;
use Psr\Clock\ClockInterface;

/** Jobs of a project as they are shown. */
final class JobList
{
    /** Too early to say how long the rest takes. */
    private const LEAST_PROGRESS = 0.05;

    public function __construct(private readonly JobRepository $jobs, private readonly ClockInterface $clock)
    {
    }

    /** @return list<JobView> running and waiting ones, and the last few that ended */
    public function recent(Project $project): array
    {
        return array_map($this->view(...), $this->jobs->recent($project->id()));
    }

    public function one(Project $project, string $id): ?JobView
    {
        $job = $this->jobs->fresh($id);

        return null === $job || $job->project->id() !== $project->id() ? null : $this->view($job);
    }

    private function view(Job $job): JobView
    {
        $left = null;
        if (Job::RUNNING === $job->state && $job->progress > self::LEAST_PROGRESS && null !== $job->startedAt) {
            $elapsed = (float) ($this->clock->now()->getTimestamp() - $job->startedAt->getTimestamp());
            $left = $elapsed / $job->progress - $elapsed;
        }

        return new JobView($job->id, $job->kind, $job->title, $job->state, $job->stage, $job->progress, $job->error, $left, $job->outcome);
    }
}
