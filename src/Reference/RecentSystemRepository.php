<?php

declare(strict_types=1);

namespace App\Reference;

use App\Account\User;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<RecentSystem> */
final class RecentSystemRepository extends ServiceEntityRepository
{
    private const OFFERED = 8;

    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, RecentSystem::class);
    }

    /** @return list<string> codes, the last used first */
    public function of(User $user): array
    {
        return array_map(
            static fn (RecentSystem $r): string => $r->code,
            $this->findBy(['user' => $user->id()], ['usedAt' => 'DESC'], self::OFFERED),
        );
    }

    public function used(User $user, string $code, \DateTimeImmutable $at): void
    {
        $entities = $this->getEntityManager();
        $recent = $this->find(['user' => $user->id(), 'code' => $code]);
        if (null === $recent) {
            $recent = new RecentSystem($entities->getReference(User::class, $user->id()) ?? $user, $code, $at);
            $entities->persist($recent);
        }
        $recent->usedAt = $at;
        try {
            $entities->flush();
        } catch (UniqueConstraintViolationException) {
            // Their other page was faster; it is remembered all the same.
        }
    }
}
