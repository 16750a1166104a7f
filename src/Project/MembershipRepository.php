<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\User;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Membership> */
final class MembershipRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Membership::class);
    }

    public function of(User $user, Project $project): ?Membership
    {
        return $this->find(['user' => $user->id(), 'project' => $project->id()]);
    }

    /** @return list<Membership> everyone in a project */
    public function in(Project $project): array
    {
        return $this->findBy(['project' => $project->id()]);
    }

    /** @return list<Membership> with their projects, one query */
    public function held(User $user): array
    {
        $query = $this->createQueryBuilder('m')->select('m, p')->join('m.project', 'p')->where('m.user = :user')->orderBy('p.id');

        return array_values($query->setParameter('user', $user->id())->getQuery()->setHint(Query::HINT_REFRESH, true)->getResult());
    }
}
