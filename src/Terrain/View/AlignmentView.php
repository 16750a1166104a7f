<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** An alignment of a file; its length in metres. */
final readonly class AlignmentView
{
    public function __construct(public int $file, public string $fileName, public string $name, public float $length)
    {
    }
}
