<?php

declare(strict_types=1);

namespace App\Intake\Memory;

use App\Account\User;
use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<RememberedMapping> */
final class RememberedMappingRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, RememberedMapping::class);
    }

    /** What this project remembers of such headings, else what this person does in another. */
    public function recall(Project $project, User $person, string $shape): ?RememberedMapping
    {
        return $this->findOneBy(['project' => $project->id(), 'shape' => $shape])
            ?? $this->findOneBy(['author' => $person->id(), 'shape' => $shape], ['id' => 'DESC']);
    }

    public function in(Project $project, int $id): ?RememberedMapping
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    /** One that this person may rename or forget: of this project, or their own. */
    public function within(Project $project, User $person, int $id): ?RememberedMapping
    {
        return $this->in($project, $id) ?? $this->findOneBy(['author' => $person->id(), 'id' => $id]);
    }

    /**
     * Kept with the transaction that is under way.
     *
     * @param array<string, mixed> $mapping
     */
    public function remember(Project $project, User $person, string $shape, string $label, string $kind, array $mapping): void
    {
        $old = $this->findOneBy(['project' => $project->id(), 'shape' => $shape]);
        if (null === $old) {
            $this->getEntityManager()->persist(new RememberedMapping($project, $person, $shape, $label, $kind, $mapping));

            return;
        }
        [$old->author, $old->kind, $old->mapping] = [$person, $kind, $mapping];
    }

    public function rename(RememberedMapping $mapping, string $label): void
    {
        $mapping->label = $label;
        $this->getEntityManager()->flush();
    }

    public function forget(RememberedMapping $mapping): void
    {
        $this->getEntityManager()->remove($mapping);
        $this->getEntityManager()->flush();
    }
}
