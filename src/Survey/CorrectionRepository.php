<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Correction> */
final class CorrectionRepository extends ServiceEntityRepository implements FollowsRename
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Correction::class);
    }

    /** @return list<Correction> oldest first */
    public function all(Project $project): array
    {
        return $this->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }

    public function in(Project $project, int $id): ?Correction
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    public function add(Correction $correction): void
    {
        $this->getEntityManager()->persist($correction);
    }

    public function remove(Correction $correction): void
    {
        $this->getEntityManager()->remove($correction);
    }

    public function renamed(Project $project, string $from, string $to): void
    {
        foreach ($this->all($project) as $correction) {
            $correction->rename($from, $to);
        }
    }
}
