<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Project\Project;
use App\Survey\Like;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Surface> */
final class SurfaceRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Surface::class);
    }

    public function add(Surface $surface): void
    {
        $this->getEntityManager()->persist($surface);
    }

    public function in(Project $project, int $id): ?Surface
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    public function named(Project $project, string $name): ?Surface
    {
        return $this->findOneBy(['project' => $project->id(), 'name' => $name]);
    }

    /** @return list<Surface> oldest first */
    public function of(Project $project): array
    {
        return $this->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }

    /** @return list<Surface> */
    public function like(Project $project, string $text, int $most): array
    {
        $query = $this->createQueryBuilder('s')->where("s.project = :p AND s.name LIKE :like ESCAPE '!'")
            ->orderBy('s.id')->setMaxResults($most);

        return array_values($query->setParameter(
            'p', $project->id(),
        )->setParameter('like', Like::containing($text))->getQuery()->getResult());
    }
}
