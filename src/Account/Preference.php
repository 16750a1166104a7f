<?php

declare(strict_types=1);

namespace App\Account;

use Doctrine\ORM\Mapping as ORM;

/** How a person likes something shown, kept as the page wrote it: the server does not look into it. */
#[ORM\Entity(repositoryClass: PreferenceRepository::class)]
#[ORM\Table(name: 'preference')]
#[ORM\UniqueConstraint(name: 'preference_of_user', columns: ['user_id', 'name'])]
class Preference
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $user,
        #[ORM\Column(length: 60)]
        public readonly string $name,
        /** JSON. */
        #[ORM\Column(type: 'text')]
        public string $value,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }
}
