<?php

declare(strict_types=1);

namespace App\Reference\View;

/** A geoid or shift grid that can be used. Bounds south, west, north, east and step in degrees. */
final readonly class GridFileView
{
    /**
     * @param list<float>|null $bounds
     * @param list<string>     $notes
     */
    public function __construct(
        public string $reference,
        public ?int $id,
        public string $name,
        public string $kind,
        public string $origin,
        public int $size,
        public ?array $bounds,
        public ?float $step,
        public string $ellipsoid,
        public bool $coversPoints,
        public array $notes,
    ) {
    }
}
