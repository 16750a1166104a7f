<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<NetworkPlan> */
final class NetworkPlanRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, NetworkPlan::class);
    }

    /** That of the project, or an empty one. */
    public function of(Project $project): NetworkPlan
    {
        return $this->findOneBy(['project' => $project->id()]) ?? new NetworkPlan($project);
    }

    public function keep(NetworkPlan $plan): void
    {
        $this->getEntityManager()->persist($plan);
    }
}
