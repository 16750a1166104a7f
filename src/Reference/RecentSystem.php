<?php

declare(strict_types=1);

namespace App\Reference;

use App\Account\User;
use Doctrine\ORM\Mapping as ORM;

/** A system someone stated lately, to be offered first. */
#[ORM\Entity(repositoryClass: RecentSystemRepository::class)]
#[ORM\Table(name: 'recent_system')]
class RecentSystem
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $user,
        #[ORM\Id, ORM\Column(length: 40)]
        public readonly string $code,
        #[ORM\Column]
        public \DateTimeImmutable $usedAt,
    ) {
    }
}
