<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** What a surface takes of a point cloud. */
final readonly class CloudTakenView
{
    /**
     * @param list<int> $classes of the LAS specification; empty for all points
     * @param ?float    $spacing metres: one point to a square of that side
     */
    public function __construct(public int $file, public array $classes, public ?float $spacing)
    {
    }
}
