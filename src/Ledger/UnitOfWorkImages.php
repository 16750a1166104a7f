<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use App\Store\Journaled;
use App\Store\Versioned;
use Doctrine\Bundle\DoctrineBundle\Attribute\AsDoctrineListener;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Event\OnFlushEventArgs;
use Doctrine\ORM\Event\PostFlushEventArgs;
use Doctrine\ORM\Events;

/**
 * Hands the journal of the operation under way what the unit of work writes. Journaled entities are written by operations
 * only: without a journal a flush that would change one fails.
 */
#[AsDoctrineListener(Events::onFlush)]
#[AsDoctrineListener(Events::postFlush)]
final class UnitOfWorkImages
{
    private ?Journal $journal = null;

    /** @var list<object> whose rows get their ids by being written */
    private array $inserted = [];

    /** @var list<array{string, int, ?array<string, mixed>, ?array<string, mixed>}> table, id, before, after */
    private array $changed = [];

    /**
     * @template T
     *
     * @param \Closure(): T $operation
     *
     * @return T
     */
    public function into(Journal $journal, \Closure $operation): mixed
    {
        $this->journal = $journal;
        try {
            return $operation();
        } finally {
            $this->journal = null;
            $this->inserted = $this->changed = [];
        }
    }

    public function onFlush(OnFlushEventArgs $event): void
    {
        $entities = $event->getObjectManager();
        $work = $entities->getUnitOfWork();
        $rows = new RowImage($entities);
        $this->inserted = $this->changed = [];
        foreach ($work->getScheduledEntityInsertions() as $entity) {
            // A project begins before its ledger does.
            if (!$entity instanceof Project && $this->isJournaled($entity)) {
                $this->mark($entities, $entity);
                $this->inserted[] = $entity;
            }
        }
        foreach ($work->getScheduledEntityUpdates() as $entity) {
            if ($this->isJournaled($entity)) {
                $this->mark($entities, $entity);
                $class = $entities->getClassMetadata($entity::class);
                $set = $work->getEntityChangeSet($entity);
                $this->changed[] = [
                    $class->getTableName(), (int) $work->getSingleIdentifierValue($entity),
                    $rows->of($class, array_map(static fn (mixed $c): mixed => $c[0], $set)),
                    $rows->of($class, array_map(static fn (mixed $c): mixed => $c[1], $set)),
                ];
            }
        }
        foreach ($work->getScheduledEntityDeletions() as $entity) {
            if ($this->isJournaled($entity)) {
                $class = $entities->getClassMetadata($entity::class);
                $image = $rows->of($class, $work->getOriginalEntityData($entity));
                $this->changed[] = [$class->getTableName(), (int) $work->getSingleIdentifierValue($entity), $image, null];
            }
        }
    }

    public function postFlush(PostFlushEventArgs $event): void
    {
        if (null === $this->journal) {
            return;
        }
        $entities = $event->getObjectManager();
        $rows = new RowImage($entities);
        $inserted = array_map(static function (object $entity) use ($entities, $rows): array {
            $class = $entities->getClassMetadata($entity::class);
            $work = $entities->getUnitOfWork();

            return [
                $class->getTableName(), (int) $work->getSingleIdentifierValue($entity), null,
                $rows->of($class, $work->getOriginalEntityData($entity)),
            ];
        }, $this->inserted);
        // In the order the unit of work writes: what is new, what changed, what is gone.
        $this->record($this->journal, [...$inserted, ...$this->changed]);
        $this->inserted = $this->changed = [];
    }

    /** @param list<array{string, int, ?array<string, mixed>, ?array<string, mixed>}> $changes */
    private function record(Journal $journal, array $changes): void
    {
        $rows = [];
        $head = null;
        foreach ($changes as [$table, $id, $before, $after]) {
            $columns = array_keys($before ?? $after ?? []);
            if (null !== $head && $head !== [$table, $columns]) {
                $journal->record(new Images($head[0], $head[1], $rows));
                $rows = [];
            }
            $head = [$table, $columns];
            $rows[] = [$id, null === $before ? null : array_values($before), null === $after ? null : array_values($after)];
        }
        if (null !== $head) {
            $journal->record(new Images($head[0], $head[1], $rows));
        }
    }

    private function isJournaled(object $entity): bool
    {
        if (!$entity instanceof Journaled) {
            return false;
        }
        if (null === $this->journal) {
            throw new \LogicException(\sprintf('%s is changed by operations only.', $entity::class));
        }

        return true;
    }

    private function mark(EntityManagerInterface $entities, object $entity): void
    {
        if ($entity instanceof Versioned && null !== $this->journal) {
            $entity->changedBy($this->journal->seq);
            $entities->getUnitOfWork()->recomputeSingleEntityChangeSet($entities->getClassMetadata($entity::class), $entity);
        }
    }
}
