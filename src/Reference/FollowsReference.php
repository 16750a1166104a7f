<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Something besides points that is kept in project coordinates, and so follows where they go. Within the operation that moves them. */
#[AutoconfigureTag('app.follows_reference')]
interface FollowsReference
{
    /**
     * @param \Closure(string, float, float): array{float, float} $place what it is about, easting, northing in metres;
     * gives the new ones
     * @param Step $step the same in words, for what keeps its own numbers and is placed when it is read
     */
    public function moved(Project $project, \Closure $place, Step $step): void;
}
