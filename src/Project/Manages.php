<?php

declare(strict_types=1);

namespace App\Project;

#[\Attribute(\Attribute::TARGET_PARAMETER)]
final class Manages extends ProjectRight
{
    public function __construct()
    {
        parent::__construct(ProjectVoter::MANAGE, 'Only an owner of the project changes who may do what.');
    }
}
