<?php

declare(strict_types=1);

namespace App\Project;

#[\Attribute(\Attribute::TARGET_PARAMETER)]
final class Reads extends ProjectRight
{
    public function __construct()
    {
        parent::__construct(ProjectVoter::READ, 'Members read this project; you are not one.');
    }
}
