<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\User;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Authorization\Voter\Vote;
use Symfony\Component\Security\Core\Authorization\Voter\Voter;

/**
 * Roles per project: every member reads and comments, owners and editors change, owners manage members.
 *
 * @extends Voter<string, Project>
 */
final class ProjectVoter extends Voter
{
    public const READ = 'project.read';
    public const REVIEW = 'project.review';
    public const CHANGE = 'project.change';
    public const MANAGE = 'project.manage';

    public function __construct(private readonly MembershipRepository $memberships)
    {
    }

    protected function supports(string $attribute, mixed $subject): bool
    {
        return $subject instanceof Project && str_starts_with($attribute, 'project.');
    }

    protected function voteOnAttribute(string $attribute, mixed $subject, TokenInterface $token, ?Vote $vote = null): bool
    {
        $user = $token->getUser();
        if (!$user instanceof User) {
            return false;
        }
        $role = $this->roleOf($user, $subject);

        return match ($attribute) {
            self::READ, self::REVIEW => null !== $role,
            self::CHANGE => null !== $role && $role->mayChange(),
            self::MANAGE => Role::Owner === $role,
            default => false,
        };
    }

    public function roleOf(User $user, Project $project): ?Role
    {
        return $this->memberships->of($user, $project)?->role();
    }
}
