<?php

declare(strict_types=1);

namespace App\Reference;

/** A grid about to be kept: what {@see GridFile} says of it. */
final readonly class NewGrid
{
    /** @param array{bounds?: list<float>, step?: float, ellipsoid?: string, notes?: list<string>} $info */
    public function __construct(
        public string $name,
        public string $kind,
        public string $origin,
        public string $sha256,
        public int $size,
        public array $info,
    ) {
    }
}
