<?php

declare(strict_types=1);

namespace App\Result;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Result> */
final class ResultRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Result::class);
    }

    public function add(Result $result): void
    {
        $this->getEntityManager()->persist($result);
    }

    /** @return list<Result> the newest run of every slot, oldest first */
    public function newest(Project $project): array
    {
        $newest = 'SELECT MAX(n.id) FROM '.Result::class.' n WHERE n.project = :p GROUP BY n.slot';
        $query = $this->createQueryBuilder('r')->where("r.id IN ($newest)")->orderBy('r.id')->setParameter('p', $project->id());

        return array_values($query->getQuery()->getResult());
    }

    /** @return list<Result> every run of a slot, newest first */
    public function runs(Project $project, string $slot): array
    {
        return $this->findBy(['project' => $project->id(), 'slot' => $slot], ['id' => 'DESC']);
    }

    public function lastRun(Project $project, string $slot): int
    {
        $dql = 'SELECT MAX(r.run) FROM '.Result::class.' r WHERE r.project = :p AND r.slot = :s';

        return (int) $this->getEntityManager()->createQuery($dql)
            ->setParameters(['p' => $project->id(), 's' => $slot])->getSingleScalarResult();
    }
}
