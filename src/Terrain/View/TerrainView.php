<?php

declare(strict_types=1);

namespace App\Terrain\View;

use App\Design\View\CloudFileView;
use App\Design\View\DesignFileView;

/** The terrain stage. */
final readonly class TerrainView
{
    /**
     * @param list<SurfaceView> $surfaces
     * @param array<string, int> $codes
     * @param list<VolumeView> $volumes
     * @param list<MaterialView> $materials
     * @param list<SectionView> $sections
     * @param list<AlignmentView> $alignments
     * @param list<DesignFileView> $designs
     * @param list<CloudFileView> $clouds
     * @param float $capacity of a lorry, cubic metres loose
     */
    public function __construct(
        public array $surfaces,
        public array $codes,
        public array $volumes,
        public array $materials,
        public float $capacity,
        public array $sections,
        public array $alignments,
        public array $designs,
        public array $clouds,
    ) {
    }
}
