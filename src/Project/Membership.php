<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\User;
use Doctrine\ORM\Mapping as ORM;

#[ORM\Entity(repositoryClass: MembershipRepository::class)]
#[ORM\Table(name: 'membership')]
class Membership
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private User $user,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Project $project,
        #[ORM\Column(length: 20, enumType: Role::class)]
        private Role $role,
    ) {
    }

    public function user(): User
    {
        return $this->user;
    }

    public function project(): Project
    {
        return $this->project;
    }

    public function role(): Role
    {
        return $this->role;
    }

    public function become(Role $role): void
    {
        $this->role = $role;
    }
}
