<?php

declare(strict_types=1);

namespace App\Project;

/** Says something about the work without changing it: every member may. */
#[\Attribute(\Attribute::TARGET_PARAMETER)]
final class Reviews extends ProjectRight
{
    public function __construct()
    {
        parent::__construct(ProjectVoter::REVIEW, 'Members comment on this project; you are not one.');
    }
}
