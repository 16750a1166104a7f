<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** What lies between a surface and what it is compared with; metres, square and cubic metres. */
final readonly class VolumeView
{
    /**
     * @param string                 $of         the surface, in words
     * @param string                 $comparedTo what it is compared with, in words
     * @param list<list<float>>      $boundary
     * @param float                  $thickest   greatest cut
     * @param float                  $deepest    greatest fill
     * @param list<SliceView>        $depths
     * @param list<SliceView>        $elevations
     * @param list<HaulView>         $haul
     * @param ?string                $isopach    its bytes; null where the surfaces are too large to keep it
     * @param ?string                $contours   lines of equal difference, in the store
     * @param list<string>           $stale
     */
    public function __construct(
        public int $number, public string $name, public string $of, public string $comparedTo, public int $surface, public string $against,
        public int $other, public float $elevation, public array $boundary, public float $slice, public float $cut, public float $fill,
        public float $net, public float $areaCut, public float $areaFill, public float $planArea, public float $thickest,
        public float $deepest, public array $depths, public array $elevations, public array $haul, public ?string $isopach,
        public ?string $contours,
        public int $run, public string $at, public string $author, public array $stale,
    ) {
    }
}
