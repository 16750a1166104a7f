<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** The terrain stage. */
final readonly class TerrainView
{
    /**
     * @param list<SurfaceView> $surfaces
     * @param array<string, int> $codes
     */
    public function __construct(
        public array $surfaces,
        public array $codes,
    ) {
    }
}
