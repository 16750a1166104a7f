<?php

declare(strict_types=1);

namespace App\Job;

use App\Account\User;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;

/** Starts, lists, cancels and takes up again. */
final class Jobs
{
    public function __construct(
        private readonly Connection $connection,
        private readonly MessageBusInterface $bus,
        private readonly ClockInterface $clock,
    ) {
    }

    /** @param array<string, mixed> $payload */
    public function start(Project $project, User $author, string $kind, string $title, array $payload = []): string
    {
        $id = (string) Uuid::v7();
        $this->connection->insert('job', [
            'id' => $id, 'project_id' => $project->id(), 'author_id' => $author->id(), 'kind' => $kind, 'title' => $title,
            'payload' => json_encode($payload, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), 'state' => 'queued', 'created_at' => $this->clock->now()->format('Y-m-d H:i:s'),
        ]);
        $this->bus->dispatch(new RunJob($id));

        return $id;
    }

    public function cancel(Project $project, string $id): void
    {
        $this->connection->executeStatement("UPDATE job SET cancel_requested = 1, state = CASE state WHEN 'queued' THEN 'cancelled' ELSE state END WHERE id = ? AND project_id = ? AND state IN ('queued', 'running')", [$id, $project->id()]);
    }

    /**
     * Jobs whose worker process is gone are queued again. Called when a worker starts.
     *
     * @return int how many
     */
    public function takeUpAgain(): int
    {
        $count = 0;
        foreach ($this->connection->fetchAllAssociative("SELECT id, worker FROM job WHERE state = 'running'") as $job) {
            [$host, $process] = explode(':', (string) $job['worker']) + [1 => '0'];
            if ($host !== gethostname() || self::alive((int) $process)) {
                continue;
            }
            $changed = $this->connection->executeStatement("UPDATE job SET state = 'queued', stage = 'taken up again', worker = NULL WHERE id = ? AND state = 'running' AND worker = ?", [$job['id'], $job['worker']]);
            if ($changed > 0) {
                $this->bus->dispatch(new RunJob($job['id']));
                ++$count;
            }
        }

        return $count;
    }

    private static function alive(int $process): bool
    {
        return $process > 0 && posix_kill($process, 0);
    }
}
