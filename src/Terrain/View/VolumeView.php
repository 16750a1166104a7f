<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** Volume against an elevation; cubic and square metres. */
final readonly class VolumeView
{
    /**
     * @param list<string> $stale
     */
    public function __construct(
        public float $elevation,
        public float $cut,
        public float $fill,
        public float $net,
        public float $areaCut,
        public float $areaFill,
        public float $planArea,
        public array $stale,
        public string $createdAt,
    ) {
    }
}
