<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<KeptPackage> */
final class PackageRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, KeptPackage::class);
    }

    public function add(KeptPackage $package): void
    {
        $this->getEntityManager()->persist($package);
    }

    public function in(Project $project, int $id): ?KeptPackage
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    public function named(Project $project, string $name): ?KeptPackage
    {
        return $this->findOneBy(['project' => $project->id(), 'name' => $name]);
    }

    /** @return list<KeptPackage> oldest first */
    public function of(Project $project): array
    {
        return $this->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }
}
