<?php

declare(strict_types=1);

namespace App\Job;

use App\Job\View\JobView;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;

/** Jobs of a project as they are shown. */
final class JobList
{
    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    /** @return list<JobView> running and waiting ones, and the last few that ended */
    public function recent(Project $project): array
    {
        $rows = $this->connection->fetchAllAssociative("SELECT * FROM job WHERE project_id = ? AND (state IN ('queued', 'running') OR id IN (SELECT id FROM job WHERE project_id = ? ORDER BY id DESC LIMIT 8)) ORDER BY id DESC", [$project->id(), $project->id()]);

        return array_map($this->view(...), $rows);
    }

    public function one(Project $project, string $id): ?JobView
    {
        $row = $this->connection->fetchAssociative('SELECT * FROM job WHERE id = ? AND project_id = ?', [$id, $project->id()]);

        return false === $row ? null : $this->view($row);
    }

    /** @param array<string, mixed> $row */
    private function view(array $row): JobView
    {
        $left = null;
        if ('running' === $row['state'] && $row['progress'] > 0.05 && null !== $row['started_at']) {
            $elapsed = $this->clock->now()->getTimestamp() - (new \DateTimeImmutable($row['started_at'].' UTC'))->getTimestamp();
            $left = $elapsed / $row['progress'] - $elapsed;
        }

        return new JobView($row['id'], $row['kind'], $row['title'], $row['state'], $row['stage'], (float) $row['progress'], $row['error'], $left, null === $row['outcome'] ? null : json_decode($row['outcome'], true, 32, \JSON_THROW_ON_ERROR));
    }
}
