<?php

declare(strict_types=1);

namespace App\Project;

#[\Attribute(\Attribute::TARGET_PARAMETER)]
final class Changes extends ProjectRight
{
    public function __construct()
    {
        parent::__construct(ProjectVoter::CHANGE, 'Reviewers read and comment; an editor or owner makes changes.');
    }
}
