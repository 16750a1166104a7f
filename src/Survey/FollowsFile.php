<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Something that makes more of an accepted file than points and observations. Within the operation that accepts. */
#[AutoconfigureTag('app.follows_file')]
interface FollowsFile
{
    public function accepted(Project $project, SurveyFile $file): void;
}
