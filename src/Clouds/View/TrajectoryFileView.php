<?php

declare(strict_types=1);

namespace App\Clouds\View;

/** A trajectory that came in. */
final readonly class TrajectoryFileView
{
    /** @param float $length in plan, metres */
    public function __construct(public int $id, public string $name, public int $rows, public float $length)
    {
    }
}
