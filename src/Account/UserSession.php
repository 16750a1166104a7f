<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\ORM\Mapping as ORM;

/** One place someone is signed in: it ends when it is not used for long, or when they end it from another. */
#[ORM\Entity(repositoryClass: UserSessionRepository::class)]
#[ORM\Table(name: 'user_session')]
#[ORM\UniqueConstraint(name: 'user_session_key', columns: ['session_key'])]
#[ORM\Index(name: 'user_session_user', columns: ['user_id'])]
class UserSession
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column]
    public \DateTimeImmutable $usedAt;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $user,
        /** Hash of a random text in the session; the session itself cannot be found from it. */
        #[ORM\Column(length: 64)]
        public readonly string $sessionKey,
        #[ORM\Column(length: 45)]
        public readonly string $address,
        #[ORM\Column(length: 200)]
        public readonly string $agent,
        #[ORM\Column]
        public \DateTimeImmutable $begunAt,
    ) {
        $this->usedAt = $begunAt;
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
