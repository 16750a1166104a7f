<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Result\Result;

/** Figures of a surface that are shown without opening it: metres and square metres. */
final readonly class SurfaceSummary
{
    /**
     * @param string       $contours their file in the store
     * @param list<string> $warnings
     */
    public function __construct(
        public int $points,
        public int $triangles,
        public float $planArea,
        public float $surfaceArea,
        public float $hMin,
        public float $hMax,
        public float $interval,
        public int $contourCount,
        public string $contours,
        public array $warnings,
    ) {
    }

    public static function of(Result $result): self
    {
        $s = $result->summary;

        return new self(
            $s['points'], $s['triangles'], $s['planArea'], $s['surfaceArea'], $s['hMin'], $s['hMax'], $s['interval'],
            $s['contourCount'], $s['contours'],
            $s['warnings'],
        );
    }
}
