<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Something that knows points by their names, and so follows when one is renamed. Within the operation that renames. */
#[AutoconfigureTag('app.follows_rename')]
interface FollowsRename
{
    public function renamed(Project $project, string $from, string $to): void;
}
