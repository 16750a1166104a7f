<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<LedgerEntry> */
final class LedgerEntryRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, LedgerEntry::class);
    }

    public function add(LedgerEntry $entry): void
    {
        $this->getEntityManager()->persist($entry);
    }

    /** @throws NoSuchEntry */
    public function numbered(Project $project, int $seq): LedgerEntry
    {
        return $this->findOneBy(['project' => $project->id(), 'seq' => $seq]) ?? throw new NoSuchEntry($seq);
    }

    /** @return list<LedgerEntry> newest first */
    public function after(Project $project, int $seq): array
    {
        $query = $this->createQueryBuilder('l')->where('l.project = :p AND l.seq > :s')->orderBy('l.seq', 'DESC');
        $query->setParameter('p', $project->id())->setParameter('s', $seq);

        return array_values($query->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult());
    }

    /** @return list<LedgerEntry> newest first */
    public function newest(Project $project, int $most): array
    {
        $query = $this->createQueryBuilder('l')->where('l.project = :p')->orderBy('l.seq', 'DESC')->setMaxResults($most);

        return array_values($query->setParameter('p', $project->id())->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult());
    }

    /** The number of the newest entry; 0 before the first. */
    public function lastSeq(Project $project): int
    {
        return (int) $this->highest($project, '');
    }

    /** The newest entry that is neither an undoing nor undone; null when there is none. */
    public function lastUndoable(Project $project): ?int
    {
        return $this->highest($project, ' AND l.undoneBy IS NULL AND l.undoes IS NULL');
    }

    /** The newest standing entry of an operation. */
    public function lastOf(Project $project, string $operation): ?LedgerEntry
    {
        return $this->findOneBy(['project' => $project->id(), 'operation' => $operation, 'undoneBy' => null], ['seq' => 'DESC']);
    }

    public function ofRequest(Project $project, string $requestKey): ?LedgerEntry
    {
        return $this->findOneBy(['project' => $project->id(), 'requestKey' => $requestKey]);
    }

    private function highest(Project $project, string $and): ?int
    {
        $dql = 'SELECT MAX(l.seq) FROM '.LedgerEntry::class.' l WHERE l.project = :p'.$and;
        $seq = $this->getEntityManager()->createQuery($dql)->setParameter('p', $project->id())->getSingleScalarResult();

        return null === $seq ? null : (int) $seq;
    }
}
