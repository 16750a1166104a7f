<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\User;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Project> */
final class ProjectRepository extends ServiceEntityRepository
{
    private bool $isLocked = false;

    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Project::class);
    }

    /** A new project with its first owner. */
    public function found(Project $project, User $owner): void
    {
        $this->getEntityManager()->persist($project);
        $this->getEntityManager()->persist(new Membership($owner, $project, Role::Owner));
        $this->getEntityManager()->flush();
    }

    /**
     * Runs a change of the project while no one else can change anything: all of it or nothing.
     *
     * The first statement writes, so that the transaction holds the write lock before it reads; what was loaded before is
     * let go, so that what the change sees is what is there.
     *
     * @template T
     *
     * @param \Closure(Project): T $change
     *
     * @return T
     *
     * @throws NoSuchProject
     */
    public function locked(int $id, \Closure $change): mixed
    {
        $entities = $this->getEntityManager();
        $connection = $entities->getConnection();
        $connection->beginTransaction();
        $this->isLocked = true;
        try {
            $entities->createQuery('UPDATE '.Project::class.' p SET p.revision = p.revision + 1 WHERE p.id = :id')->execute(['id' => $id]);
            $entities->clear();
            $result = $change($this->find($id) ?? throw new NoSuchProject());
            $entities->flush();
            $connection->commit();

            return $result;
        } catch (\Throwable $e) {
            if ($connection->isTransactionActive()) {
                $connection->rollBack();
            }
            if ($entities->isOpen()) {
                $entities->clear();
            }
            throw $e;
        } finally {
            $this->isLocked = false;
        }
    }

    /**
     * Reads everything inside as of one moment: no write of another process comes between.
     *
     * @template T
     *
     * @param \Closure(): T $read
     *
     * @return T
     */
    public function atOneMoment(\Closure $read): mixed
    {
        $connection = $this->getEntityManager()->getConnection();
        $connection->beginTransaction();
        try {
            return $read();
        } finally {
            $connection->rollBack();
        }
    }

    /** The number of changes, for what is kept beside the database; null within a change, which may yet be taken back. */
    public function committedRevision(int $id): ?int
    {
        return $this->isLocked ? null : $this->revision($id);
    }

    /**
     * A new project and what it begins with: both or neither.
     *
     * @param \Closure(Project): void $begin
     */
    public function foundWith(Project $project, User $owner, \Closure $begin): void
    {
        $connection = $this->getEntityManager()->getConnection();
        $connection->beginTransaction();
        try {
            $this->found($project, $this->getEntityManager()->getReference(User::class, $owner->id()) ?? $owner);
            $begin($project);
            $connection->commit();
        } catch (\Throwable $e) {
            $connection->rollBack();
            throw $e;
        }
    }

    public function rename(int $id, string $name): void
    {
        $query = $this->getEntityManager()->createQuery('UPDATE '.Project::class.' p SET p.name = :name WHERE p.id = :id');
        $query->execute(['name' => $name, 'id' => $id]);
    }

    /** As it is in the database now, whatever was loaded before. */
    public function fresh(int $id): Project
    {
        $query = $this->createQueryBuilder('p')->where('p.id = :id')->setParameter('id', $id)->getQuery();

        return $query->setHint(Query::HINT_REFRESH, true)->getOneOrNullResult() ?? throw new NoSuchProject();
    }

    /** The number of changes as it is now, whatever was loaded before. */
    public function revision(int $id): int
    {
        $query = $this->getEntityManager()->createQuery('SELECT p.revision FROM '.Project::class.' p WHERE p.id = :id');

        return (int) $query->setParameter('id', $id)->getSingleScalarResult();
    }
}
