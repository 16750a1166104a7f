<?php

declare(strict_types=1);

namespace App\Reference;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;

/** A designed low-distortion system, the next best, and the system the project is in. Distortions in ppm. */
final readonly class Design
{
    /**
     * @param array{min: float, max: float, mean: float}    $ppm
     * @param array{method: string, min: float, max: float} $other
     */
    public function __construct(
        public HorizontalSystem $system,
        public string $datum,
        public string $method,
        public float $scale,
        public array $ppm,
        public array $other,
        public ?HorizontalSystem $current,
        public Area $area,
        public float $height,
    ) {
    }
}
