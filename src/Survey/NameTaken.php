<?php

declare(strict_types=1);

namespace App\Survey;

/** A point of that name is in the project, known in another way. */
final class NameTaken extends \DomainException
{
    public function __construct(public readonly int $atLine, public readonly string $name, public readonly string $known)
    {
        parent::__construct(\sprintf('%s is in the project already, known %sly; rename one of them', $name, $known));
    }
}
