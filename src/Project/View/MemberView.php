<?php

declare(strict_types=1);

namespace App\Project\View;

/** Someone who may open a project. */
final readonly class MemberView
{
    public function __construct(
        public string $username,
        public string $name,
        public string $role,
    ) {
    }
}
