<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;

/** Carries operations out and keeps the record. */
final class Ledger
{
    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly FileStore $store,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param ?string $jobId the job this completes; marked done in the same transaction, so that a job taken up again never doubles its work
     *
     * @return int the entry's number in the project, 0 when nothing changed
     */
    public function carryOut(Project $project, string $authorName, Operation $operation, ?string $jobId = null): int
    {
        return $this->write($project, $authorName, $operation->name(), static function (Journal $journal) use ($project, $operation): array {
            $operation->apply($project, $journal);

            return [$operation->title(), $operation->detail(), null];
        }, $jobId);
    }

    /** Takes one entry back; undoing an undoing does the thing again. */
    public function undo(Project $project, string $authorName, int $seq): int
    {
        return $this->write($project, $authorName, 'undo', function (Journal $journal) use ($project, $seq): array {
            $entry = $this->entry($project, $seq);
            $this->reverse($journal, $entry);

            return [(null === $entry['undoes'] ? 'Undid' : 'Did again').' '.$seq.': '.preg_replace('/^(Undid|Did again) \d+: /', '', $entry['title']), [], $entry];
        });
    }

    /** Takes back every entry after $seq, newest first, in one step. */
    public function backTo(Project $project, string $authorName, int $seq): int
    {
        return $this->write($project, $authorName, 'back-to', function (Journal $journal) use ($project, $seq): array {
            $entries = $this->connection->fetchAllAssociative('SELECT * FROM ledger_entry WHERE project_id = ? AND seq > ? ORDER BY seq DESC', [$project->id(), $seq]);
            foreach ($entries as $entry) {
                $this->reverse($journal, $entry);
            }

            return [\sprintf('Went back to %d, taking back %d entries', $seq, \count($entries)), ['to' => $seq], null];
        });
    }

    /** The newest entry that Ctrl+Z takes back; null when there is none. */
    public function lastUndoable(Project $project): ?int
    {
        $seq = $this->connection->fetchOne('SELECT MAX(seq) FROM ledger_entry WHERE project_id = ? AND undone_by IS NULL AND undoes IS NULL', [$project->id()]);

        return null === $seq ? null : (int) $seq;
    }

    /** The newest undoing that can be done again. */
    public function lastRedoable(Project $project): ?int
    {
        $newest = $this->connection->fetchAssociative('SELECT seq, undoes, undone_by FROM ledger_entry WHERE project_id = ? ORDER BY seq DESC LIMIT 1', [$project->id()]);

        return false !== $newest && null !== $newest['undoes'] && null === $newest['undone_by'] ? (int) $newest['seq'] : null;
    }

    /** @return list<array{table: string, id: int, before: ?array<string, mixed>, after: ?array<string, mixed>}> */
    public function changes(Project $project, int $seq): array
    {
        /* @phpstan-ignore return.type (written by Journal::changes()) */
        return $this->store->getJson($this->entry($project, $seq)['changes']);
    }

    /** @return array<string, mixed> */
    private function entry(Project $project, int $seq): array
    {
        $entry = $this->connection->fetchAssociative('SELECT * FROM ledger_entry WHERE project_id = ? AND seq = ?', [$project->id(), $seq]);

        return false === $entry ? throw new NoSuchEntry($seq) : $entry;
    }

    /** @param array<string, mixed> $entry */
    private function reverse(Journal $journal, array $entry): void
    {
        foreach (array_reverse($this->store->getJson($entry['changes'])) as $change) {
            $journal->reverse($change);
        }
    }

    /** @param \Closure(Journal): array{string, array<string, mixed>, ?array<string, mixed>} $change title, detail, entry it undoes */
    private function write(Project $project, string $authorName, string $operation, \Closure $change, ?string $jobId = null): int
    {
        $journal = new Journal($this->connection, $authorName, $this->clock->now()->setTimezone(new \DateTimeZone('UTC')));
        $seq = 0;
        $this->connection->transactional(function () use ($project, $authorName, $operation, $change, $journal, $jobId, &$seq): void {
            // The first statement writes, so that the transaction holds the write lock before it reads.
            $this->connection->executeStatement('UPDATE project SET revision = revision + 1 WHERE id = ?', [$project->id()]);
            if (null !== $jobId) {
                $done = $this->connection->executeStatement("UPDATE job SET state = 'done', progress = 1, stage = '', finished_at = ? WHERE id = ? AND state = 'running'", [$journal->at->format('Y-m-d H:i:s'), $jobId]);
                if (0 === $done) {
                    return; // finished or cancelled elsewhere
                }
            }
            [$title, $detail, $undone] = $change($journal);
            $changes = $journal->changes();
            if ([] === $changes) {
                return;
            }
            $seq = 1 + (int) $this->connection->fetchOne('SELECT MAX(seq) FROM ledger_entry WHERE project_id = ?', [$project->id()]);
            $this->connection->insert('ledger_entry', [
                'project_id' => $project->id(), 'seq' => $seq, 'operation' => $operation, 'title' => mb_substr($title, 0, 400),
                'detail' => json_encode($detail, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), 'changes' => $this->store->putJson($changes),
                'change_count' => \count($changes), 'author_name' => $authorName, 'at' => $journal->at->format('Y-m-d H:i:s'),
                'undoes' => null === $undone ? null : (int) $undone['seq'],
            ]);
            if (null !== $undone) {
                $this->connection->executeStatement('UPDATE ledger_entry SET undone_by = ? WHERE id = ?', [$seq, $undone['id']]);
                if (null !== $undone['undoes']) {
                    // The first entry stands again.
                    $this->connection->executeStatement('UPDATE ledger_entry SET undone_by = NULL WHERE project_id = ? AND seq = ?', [$project->id(), $undone['undoes']]);
                }
            } elseif ('back-to' === $operation) {
                $this->connection->executeStatement('UPDATE ledger_entry SET undone_by = ? WHERE project_id = ? AND seq > ? AND seq < ?', [$seq, $project->id(), (int) $detail['to'], $seq]);
            }
        });
        $this->entities->refresh($project);

        return $seq;
    }
}
