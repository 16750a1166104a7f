<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Job\JobRepository;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Store\FileStore;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;

/** Carries operations out and keeps the record. */
final class Ledger
{
    private const LONGEST_TITLE = 400;
    private const MOST_PREPARATIONS = 4;

    public function __construct(
        private readonly ProjectRepository $projects,
        private readonly LedgerEntryRepository $entries,
        private readonly ImageRepository $rows,
        private readonly UnitOfWorkImages $images,
        private readonly JobRepository $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly FileStore $store,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param ?string $jobId the job this completes; marked done in the same transaction, so that a job taken up again
     *     never doubles its work
     * @param ?string $key   what the page called its request: under one name an operation is carried out once
     *
     * @return int the entry's number in the project, 0 when nothing changed
     *
     * @throws DoneBefore
     */
    public function carryOut(Project $project, string $authorName, Operation $operation, ?string $jobId = null, ?string $key = null): int
    {
        $this->isNew($project, $key);
        for ($i = 1; $operation instanceof Prepared; ++$i) {
            $revision = $this->projects->revision($project->id());
            $operation->prepare($project);
            try {
                return $this->apply($project, new Asking($authorName, $jobId, $key), $operation, $revision);
            } catch (ChangedMeanwhile $e) {
                // Someone else was faster: what was prepared rests on what is no longer there.
                if ($i >= self::MOST_PREPARATIONS) {
                    throw $e;
                }
            }
        }

        return $this->apply($project, new Asking($authorName, $jobId, $key), $operation);
    }

    private function apply(Project $project, Asking $request, Operation $operation, ?int $revision = null): int
    {
        $change = static function (Project $project, Journal $journal) use ($operation, $revision): array {
            if (null !== $revision && $project->revision() !== $revision + 1) {
                throw new ChangedMeanwhile();
            }
            $operation->apply($project, $journal);

            return [$operation, null];
        };

        return $this->write($project, $request, $operation->name(), $change);
    }

    /** Takes one entry back; undoing an undoing does the thing again. */
    public function undo(Project $project, string $authorName, int $seq, ?string $key = null, ?string $jobId = null): int
    {
        return $this->write($project, new Asking(
            $authorName, $jobId, $key,
        ), 'undo', function (Project $project, Journal $journal) use ($seq): array {
            $entry = $this->entries->numbered($project, $seq);
            $this->reverse($journal, $entry);
            $plain = (string) preg_replace('/^(Undid|Did again) \d+: /', '', $entry->title);
            $words = (null === $entry->undoes ? 'Undid' : 'Did again').' '.$seq.': '.$plain;

            return [new Reversal('undo', $words), $entry];
        });
    }

    /** Takes back every entry after $seq, newest first, in one step. */
    public function backTo(Project $project, string $authorName, int $seq, ?string $key = null, ?string $jobId = null): int
    {
        return $this->write($project, new Asking(
            $authorName, $jobId, $key,
        ), 'back-to', function (Project $project, Journal $journal) use ($seq): array {
            $entries = $this->entries->after($project, $seq);
            foreach ($entries as $entry) {
                $this->reverse($journal, $entry);
            }
            foreach ($journal->count() > 0 ? $entries : [] as $entry) {
                $entry->undoneBy = $journal->seq;
            }

            return [
                new Reversal('back-to', \sprintf('Went back to %d, taking back %d entries', $seq, \count($entries)), ['to' => $seq]),
                null,
            ];
        });
    }

    /** The newest entry that Ctrl+Z takes back; null when there is none. */
    public function lastUndoable(Project $project): ?int
    {
        return $this->entries->lastUndoable($project);
    }

    /** The newest undoing that can be done again. */
    public function lastRedoable(Project $project): ?int
    {
        $newest = $this->entries->newest($project, 1)[0] ?? null;

        return null !== $newest && null !== $newest->undoes && null === $newest->undoneBy ? $newest->seq : null;
    }

    public function changes(LedgerEntry $entry): JournalFile
    {
        return new JournalFile($this->store->localPath($entry->changes));
    }

    private function reverse(Journal $journal, LedgerEntry $entry): void
    {
        foreach ($this->changes($entry)->backward() as $images) {
            $this->rows->restore($journal, $images);
        }
    }

    private function isNew(Project $project, ?string $key): void
    {
        if (null !== $key && null !== $before = $this->entries->ofRequest($project, $key)) {
            throw new DoneBefore($before->seq);
        }
    }

    /** @param \Closure(Project, Journal): array{Operation|Reversal, ?LedgerEntry} $change what was done, and the entry it takes back */
    private function write(Project $project, Asking $request, string $operation, \Closure $change): int
    {
        $at = $this->clock->now()->setTimezone(new \DateTimeZone('UTC'));

        return $this->projects->locked($project->id(), function (Project $project) use ($request, $operation, $change, $at): int {
            $this->isNew($project, $request->key);
            if (null !== $request->jobId && !$this->jobs->done($request->jobId, $at)) {
                return 0; // finished or cancelled elsewhere
            }
            $seq = 1 + $this->entries->lastSeq($project);
            $journal = new Journal($seq, $request->authorName, $at);
            [$done, $undone] = $this->images->into($journal, function () use ($change, $project, $journal): array {
                $result = $change($project, $journal);
                $this->entities->flush();

                return $result;
            });
            if (0 === $journal->count()) {
                return 0;
            }
            $title = mb_substr($done->title(), 0, self::LONGEST_TITLE);
            $changes = $this->store->take($journal->finish());
            $this->entries->add(new LedgerEntry(
                $project, $seq, $operation, $title, $done->detail(), $changes, $journal->count(),
                $request->authorName, $at, $undone?->seq, $request->key,
            ));
            if (null !== $undone) {
                $undone->undoneBy = $seq;
                if (null !== $undone->undoes) {
                    $this->entries->numbered($project, $undone->undoes)->undoneBy = null; // the first entry stands again
                }
            }

            return $seq;
        });
    }
}
