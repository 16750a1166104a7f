<?php

declare(strict_types=1);

namespace App\Checks\View;

/** A surface that can be compared with. */
final readonly class SurfaceChoice
{
    public function __construct(public int $id, public string $name)
    {
    }
}
