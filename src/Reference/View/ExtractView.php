<?php

declare(strict_types=1);

namespace App\Reference\View;

/** A planned or made geoid extract. Bounds and step in degrees, sizes in bytes, differences to the source in metres. */
final readonly class ExtractView
{
    /**
     * @param list<float>       $bounds
     * @param list<list<float>> $outline in the project's coordinates, metres; empty where they have none
     */
    public function __construct(
        public string $name,
        public array $bounds,
        public float $stepLat,
        public float $stepLon,
        public int $rows,
        public int $columns,
        public int $gtxSize,
        public int $isgSize,
        public bool $sameStep,
        public string $ellipsoid,
        public ?int $id,
        public ?int $checked,
        public ?float $largest,
        public ?float $rms,
        public string $note,
        public array $outline,
    ) {
    }
}
