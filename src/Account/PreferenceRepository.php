<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<Preference> */
final class PreferenceRepository extends ServiceEntityRepository
{
    /** A person has a few tables to arrange; what asks for more is not the page. */
    private const MOST = 100;

    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, Preference::class);
    }

    /** @return array<string, string> JSON by name */
    public function of(User $user): array
    {
        $all = [];
        foreach ($this->findBy(['user' => $user->id()], ['name' => 'ASC']) as $preference) {
            $all[$preference->name] = $preference->value;
        }

        return $all;
    }

    /** @return bool false when the person has too many already */
    public function keep(User $user, string $name, string $json): bool
    {
        $preference = $this->findOneBy(['user' => $user->id(), 'name' => $name]);
        if (null === $preference) {
            if ($this->count(['user' => $user->id()]) >= self::MOST) {
                return false;
            }
            $this->getEntityManager()->persist($preference = new Preference($user, $name, $json));
        }
        $preference->value = $json;
        $this->getEntityManager()->flush();

        return true;
    }
}
