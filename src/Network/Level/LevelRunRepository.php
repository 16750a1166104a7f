<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Project;
use App\Survey\FollowsRename;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<LevelRun> */
final class LevelRunRepository extends ServiceEntityRepository implements FollowsRename
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, LevelRun::class);
    }

    /** @return list<LevelRun> oldest first */
    public function all(Project $project): array
    {
        return $this->findBy(['project' => $project->id()], ['id' => 'ASC']);
    }

    public function in(Project $project, int $id): ?LevelRun
    {
        return $this->findOneBy(['project' => $project->id(), 'id' => $id]);
    }

    public function named(Project $project, string $name): ?LevelRun
    {
        return $this->findOneBy(['project' => $project->id(), 'name' => $name]);
    }

    public function add(LevelRun $run): void
    {
        $this->getEntityManager()->persist($run);
    }

    public function remove(LevelRun $run): void
    {
        $this->getEntityManager()->remove($run);
    }

    public function renamed(Project $project, string $from, string $to): void
    {
        foreach ($this->all($project) as $run) {
            $run->rename($from, $to);
        }
    }
}
