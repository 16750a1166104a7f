<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Mensura\Fault\UnusableInput;

/**
 * Named things of one kind that projects keep.
 *
 * @template T of Kept
 *
 * @extends ServiceEntityRepository<T>
 */
abstract class KeptRepository extends ServiceEntityRepository
{
    /** @return ?T */
    public function in(Project|int $project, int $id): ?object
    {
        return $this->findOneBy(['project' => \is_int($project) ? $project : $project->id(), 'id' => $id]);
    }

    /** @return list<T> oldest first */
    public function of(Project|int $project): array
    {
        return $this->findBy(['project' => \is_int($project) ? $project : $project->id()], ['id' => 'ASC']);
    }

    /**
     * @param T $kept
     *
     * @throws UnusableInput when the project has one of that name already
     */
    public function keep(Project $project, Kept $kept, string $name): void
    {
        if (null !== $this->findOneBy(['project' => $project->id(), 'name' => $name])) {
            throw new UnusableInput('/name', \sprintf('the project has "%s" already; choose another name', $name));
        }
        $this->getEntityManager()->persist($kept);
    }
}
