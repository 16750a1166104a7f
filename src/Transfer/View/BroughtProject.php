<?php

declare(strict_types=1);

namespace App\Transfer\View;

/** A project that is being made of an archive, and the job that fills it. */
final readonly class BroughtProject
{
    public function __construct(public int $project, public string $name, public string $job)
    {
    }
}
