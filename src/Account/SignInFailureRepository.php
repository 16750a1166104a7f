<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<SignInFailure> */
final class SignInFailureRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, SignInFailure::class);
    }

    /** A row each, so that failures at one moment all count; what no longer counts goes. */
    public function add(SignInFailure $failure, \DateTimeImmutable $oldest): void
    {
        $entities = $this->getEntityManager();
        $entities->createQuery('DELETE FROM '.SignInFailure::class.' f WHERE f.at < :oldest')->execute(['oldest' => $oldest]);
        $entities->persist($failure);
        $entities->flush();
    }

    /** @param array{name?: string, address?: string} $of */
    public function since(\DateTimeImmutable $oldest, array $of): int
    {
        $query = $this->createQueryBuilder('f')->select('COUNT(f.id)')->where('f.at >= :oldest')->setParameter('oldest', $oldest);
        foreach ($of as $field => $value) {
            $query->andWhere("f.$field = :$field")->setParameter($field, $value);
        }

        return (int) $query->getQuery()->getSingleScalarResult();
    }
}
