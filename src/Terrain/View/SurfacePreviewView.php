<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** A surface as it would be. */
final readonly class SurfacePreviewView
{
    /**
     * @param int          $points    that are chosen
     * @param ?string      $mesh      base 64 of its bytes; null where it is too large to be shown at once, or cannot be made
     * @param list<array{h: float, length: float, lines: list<list<float>>}> $contours
     * @param list<string> $warnings
     * @param ?string      $refusal   why it cannot be made
     */
    public function __construct(
        public int $points, public int $triangles, public ?string $mesh, public array $contours, public array $warnings,
        public ?string $refusal,
    ) {
    }
}
