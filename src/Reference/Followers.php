<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Everything besides points that moves with them. */
final class Followers
{
    /** @param iterable<FollowsReference> $followers */
    public function __construct(#[AutowireIterator('app.follows_reference')] private readonly iterable $followers)
    {
    }

    /** @param \Closure(string, float, float): array{float, float} $place */
    public function move(Project $project, \Closure $place, Step $step): void
    {
        foreach ($this->followers as $follower) {
            $follower->moved($project, $place, $step);
        }
    }
}
