<?php

declare(strict_types=1);

namespace App\Design\View;

/** A point cloud that can be compared, or compared with. */
final readonly class CloudFileView
{
    public function __construct(public int $id, public string $name, public int $points)
    {
    }
}
