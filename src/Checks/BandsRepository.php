<?php

declare(strict_types=1);

namespace App\Checks;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Bands> */
final class BandsRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Bands::class);
    }

    /** Those of a comparison, or the usual ones. */
    public function of(Project $project, int $number): Bands
    {
        return $this->findOneBy(['project' => $project->id(), 'number' => $number]) ?? new Bands($project, $number);
    }

    public function add(Bands $bands): void
    {
        $this->getEntityManager()->persist($bands);
    }
}
