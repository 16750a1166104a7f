<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\ORM\Mapping as ORM;

/** A sign-in that failed: which name was tried, from where. Kept for as long as it counts. */
#[ORM\Entity(repositoryClass: SignInFailureRepository::class)]
#[ORM\Table(name: 'sign_in_failure')]
#[ORM\Index(name: 'sign_in_failure_at', columns: ['at'])]
class SignInFailure
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        /** Hash of the name that was tried; names typed by mistake are sometimes passwords. */
        #[ORM\Column(length: 32)]
        public readonly string $name,
        #[ORM\Column(length: 45)]
        public readonly string $address,
        #[ORM\Column]
        public \DateTimeImmutable $at,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
