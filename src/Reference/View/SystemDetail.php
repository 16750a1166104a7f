<?php

declare(strict_types=1);

namespace App\Reference\View;

/** All that is said of one coordinate system. Candidates lead to it from WGS 84, the datum GNSS positions come in. */
final readonly class SystemDetail
{
    /**
     * @param list<array{name: string, value: string}> $parameters
     * @param list<string>                             $axes
     * @param list<float>|null                         $bounds     south, west, north, east in degrees
     * @param list<CandidateView>                      $candidates
     */
    public function __construct(
        public string $reference,
        public string $name,
        public string $kind,
        public string $datum,
        public string $ellipsoid,
        public string $geodetic,
        public string $geodeticReference,
        public string $method,
        public array $parameters,
        public string $unit,
        public float $metresPerUnit,
        public array $axes,
        public string $area,
        public ?array $bounds,
        public bool $coversPoints,
        public bool $deprecated,
        public ?string $successor,
        public array $candidates,
        public string $gnss,
        public string $wkt,
        public string $proj,
    ) {
    }
}
