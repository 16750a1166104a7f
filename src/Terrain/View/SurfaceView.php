<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** A surface and its newest result; version is the ledger entry that last changed its definition. */
final readonly class SurfaceView
{
    /**
     * @param list<string> $roles
     * @param list<string> $codes
     * @param list<string> $exclude
     * @param list<list<list<float>>> $areas
     * @param list<string> $include
     * @param list<LineView> $lines
     * @param list<TakenView> $drawn
     * @param list<string> $stale
     * @param list<string> $warnings
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public array $roles,
        public array $codes,
        public array $exclude,
        public array $lines,
        public ?float $maxEdge,
        public float $interval,
        public string $pattern,
        public array $areas,
        public array $include,
        public int $index,
        public bool $smooth,
        public string $crossing,
        public ?TakenView $design,
        public array $drawn,
        public ?CloudTakenView $cloud,
        public bool $computed,
        public int $run,
        public int $points,
        public int $triangles,
        public float $planArea,
        public float $surfaceArea,
        public float $hMin,
        public float $hMax,
        public int $contourCount,
        public ?string $mesh,
        public ?string $contours,
        public array $stale,
        public array $warnings,
        public ?string $createdAt,
        public ?string $author,
    ) {
    }
}
