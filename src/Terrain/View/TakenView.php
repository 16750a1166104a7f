<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** What a surface takes of a drawing. */
final readonly class TakenView
{
    /**
     * @param list<string> $layers empty for all
     * @param list<int>    $faces  empty for all of the layers
     */
    public function __construct(public int $file, public array $layers, public array $faces, public string $unit, public string $role)
    {
    }
}
