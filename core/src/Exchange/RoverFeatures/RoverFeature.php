<?php

declare(strict_types=1);

namespace Mensura\Exchange\RoverFeatures;

/** A feature as it was collected: its kind, code and attributes, and the positions of each of its vertices. */
final readonly class RoverFeature
{
    public const KINDS = ['Point', 'LineString', 'Polygon'];

    /**
     * @param array<string, mixed> $attributes
     * @param list<RoverPosition>  $positions
     */
    public function __construct(
        public string $id, public string $kind, public string $code, public array $attributes, public int $vertices,
        public array $positions,
    ) {
    }
}
