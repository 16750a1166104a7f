<?php

declare(strict_types=1);

namespace App\Project\View;

/** A project in the list. */
final readonly class ProjectCard
{
    public function __construct(
        public int $id,
        public string $name,
        public string $role,
        public string $reference,
        public string $heights,
    ) {
    }
}
