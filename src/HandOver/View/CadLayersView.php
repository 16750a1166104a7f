<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** The layers a drawing would have. */
final readonly class CadLayersView
{
    /** @param list<array{name: string, from: string, colour: int, style: string, count: int}> $layers from: without a mapping */
    public function __construct(public array $layers, public int $points, public int $lines, public int $faces)
    {
    }
}
