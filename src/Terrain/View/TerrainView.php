<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** The terrain stage. */
final readonly class TerrainView
{
    /**
     * @param list<SurfaceView> $surfaces
     * @param array<string, int> $codes
     * @param list<VolumeView> $volumes
     * @param list<MaterialView> $materials
     * @param float $capacity of a lorry, cubic metres loose
     */
    public function __construct(
        public array $surfaces,
        public array $codes,
        public array $volumes,
        public array $materials,
        public float $capacity,
    ) {
    }
}
