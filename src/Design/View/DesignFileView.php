<?php

declare(strict_types=1);

namespace App\Design\View;

/** A file of faces that can be compared with. */
final readonly class DesignFileView
{
    /** @param array<string, int> $layers faces by layer; empty where the format has none */
    public function __construct(public int $id, public string $name, public int $faces, public array $layers)
    {
    }
}
