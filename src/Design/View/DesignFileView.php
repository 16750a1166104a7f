<?php

declare(strict_types=1);

namespace App\Design\View;

/** A file of faces, lines and points that others drew. */
final readonly class DesignFileView
{
    /**
     * @param array<string, int> $layers     faces by layer; empty where the format has none
     * @param array<string, int> $lineLayers lines by layer
     */
    public function __construct(
        public int $id, public string $name, public int $faces, public array $layers, public int $lines, public int $points,
        public array $lineLayers,
    ) {
    }
}
