<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<MaterialList> */
final class MaterialListRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, MaterialList::class);
    }

    /** The project's own, or the sample to begin with. */
    public function of(Project $project): MaterialList
    {
        return $this->findOneBy(['project' => $project->id()]) ?? new MaterialList($project);
    }

    public function add(MaterialList $list): void
    {
        $this->getEntityManager()->persist($list);
    }
}
