<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\ORM\Query;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<UserSession> */
final class UserSessionRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, UserSession::class);
    }

    public function add(UserSession $session): void
    {
        $this->getEntityManager()->persist($session);
        $this->getEntityManager()->flush();
    }

    public function keyed(string $key): ?UserSession
    {
        $query = $this->createQueryBuilder('s')->where('s.sessionKey = :k')->setParameter('k', $key)->getQuery();

        return $query->setHint(Query::HINT_REFRESH, true)->getOneOrNullResult();
    }

    /** @return list<UserSession> the one used last first */
    public function of(User $user): array
    {
        return $this->findBy(['user' => $user->id()], ['usedAt' => 'DESC']);
    }

    public function used(UserSession $session, \DateTimeImmutable $at): void
    {
        $dql = 'UPDATE '.UserSession::class.' s SET s.usedAt = :at WHERE s.id = :id';
        $this->getEntityManager()->createQuery($dql)->execute(['at' => $at, 'id' => $session->id()]);
    }

    public function end(User $user, int $id): void
    {
        $dql = 'DELETE FROM '.UserSession::class.' s WHERE s.user = :u AND s.id = :id';
        $this->getEntityManager()->createQuery($dql)->execute(['u' => $user->id(), 'id' => $id]);
    }

    public function endOthers(User $user, string $key): void
    {
        $dql = 'DELETE FROM '.UserSession::class.' s WHERE s.user = :u AND s.sessionKey <> :k';
        $this->getEntityManager()->createQuery($dql)->execute(['u' => $user->id(), 'k' => $key]);
    }

    public function endUnused(\DateTimeImmutable $since): void
    {
        $this->getEntityManager()->createQuery('DELETE FROM '.UserSession::class.' s WHERE s.usedAt < :since')
            ->execute(['since' => $since]);
    }
}
