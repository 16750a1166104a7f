<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** A line that shapes a surface: by point names in order, or by drawn vertices. */
final readonly class LineView
{
    /**
     * @param list<string> $points
     * @param list<list<float>> $vertices
     */
    public function __construct(
        public string $role,
        public string $name,
        public array $points,
        public array $vertices,
    ) {
    }
}
