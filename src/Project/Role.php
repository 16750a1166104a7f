<?php

declare(strict_types=1);

namespace App\Project;

/** What a member may do in a project. */
enum Role: string
{
    case Owner = 'owner';
    case Editor = 'editor';
    case Reviewer = 'reviewer';

    public function mayChange(): bool
    {
        return self::Reviewer !== $this;
    }
}
