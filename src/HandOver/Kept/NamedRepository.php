<?php

declare(strict_types=1);

namespace App\HandOver\Kept;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;

/**
 * @template T of Named
 *
 * @extends ServiceEntityRepository<T>
 */
abstract class NamedRepository extends ServiceEntityRepository
{
    /** @return class-string<T> */
    public function kind(): string
    {
        return $this->getClassName();
    }

    public function add(Named $thing): void
    {
        $this->getEntityManager()->persist($thing);
    }

    public function remove(Named $thing): void
    {
        $this->getEntityManager()->remove($thing);
    }

    /** @return ?T */
    public function in(Project $project, int $id): ?Named
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /** @return ?T */
    public function named(Project $project, string $name): ?Named
    {
        return $this->findOneBy(['project' => $project->id(), 'name' => $name]);
    }

    /** @return list<T> oldest first */
    public function of(Project $project): array
    {
        return $this->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }
}
