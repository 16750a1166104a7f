<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\UserRepository;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;

/** Changes who may do what in a project; there is always an owner, however many change it at once. */
final class Members
{
    public function __construct(
        private readonly ProjectRepository $projects,
        private readonly MembershipRepository $memberships,
        private readonly UserRepository $users,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    /**
     * @param ?Role $role null takes the membership away
     *
     * @throws UnusableInput
     */
    public function change(Project $project, string $username, ?Role $role): void
    {
        $this->projects->locked($project->id(), function (Project $project) use ($username, $role): void {
            $user = $this->users->named($username) ?? throw new UnusableInput(
                '/username', \sprintf('there is no account "%s"; make it with bin/console mensura:user', $username),
            );
            $present = $this->memberships->of($user, $project);
            $isOwner = Role::Owner === $present?->role();
            if ($isOwner && Role::Owner !== $role && 1 === $this->memberships->count(['project' => $project, 'role' => Role::Owner])) {
                throw new UnusableInput('/role', 'a project keeps at least one owner; make someone else owner first');
            }
            match (true) {
                null === $role => null === $present ?: $this->entities->remove($present),
                null === $present => $this->entities->persist(new Membership($user, $project, $role)),
                default => $present->become($role),
            };
        });
    }
}
