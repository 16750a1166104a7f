<?php

declare(strict_types=1);

namespace App\Project;

use Symfony\Component\HttpKernel\Attribute\ValueResolver;

/** What the member must be allowed to do for a controller to be given the project of its address. */
abstract class ProjectRight extends ValueResolver
{
    public function __construct(public readonly string $right, public readonly string $refusal)
    {
        parent::__construct(ProjectOfRequest::class);
    }
}
