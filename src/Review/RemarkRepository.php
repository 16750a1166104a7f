<?php

declare(strict_types=1);

namespace App\Review;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Remark> */
final class RemarkRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Remark::class);
    }

    public function add(Remark $remark): void
    {
        $this->getEntityManager()->persist($remark);
    }

    public function in(Project $project, int $id): ?Remark
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /** @return list<Remark> oldest first */
    public function about(Project $project, string $about): array
    {
        return $this->findBy(['project' => $project->id(), 'about' => $about], ['id' => 'ASC']);
    }
}
