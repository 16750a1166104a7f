<?php

declare(strict_types=1);

namespace Mensura\Reference\Ground;

use Mensura\Geodesy\Geodesic;
use Mensura\Reference\Crs\HorizontalSystem;

/**
 * Everything between two points of a projected system: grid, ground, ellipsoidal and slope distance, grid and geodetic
 * azimuths, height difference, scale factors. The line scale factor is Simpson's mean of the ends and the middle.
 */
final readonly class Inverse
{
    private function __construct(
        public GridPoint $from,
        public GridPoint $to,
        public float $gridDistance,
        /** Horizontal distance at the mean height of the ends: the ellipsoidal one raised by (R + h) / R. */
        public float $groundDistance,
        /** Along the geodesic on the ellipsoid. */
        public float $ellipsoidalDistance,
        /** Straight from mark to mark. */
        public float $slopeDistance,
        public float $gridBearing,
        public float $azimuthFrom,
        public float $azimuthTo,
        public float $heightDifference,
        public float $lineScale,
        public float $lineHeightFactor,
    ) {
    }

    /**
     * @param array{float, float, float} $a e, n, height in the project's kind, metres
     * @param array{float, float, float} $b
     * @param float                      $undulationA geoid height added to reach the ellipsoid; zero for ellipsoidal heights
     */
    public static function between(HorizontalSystem $system, array $a, array $b, float $undulationA = 0.0, float $undulationB = 0.0): self
    {
        $from = GridPoint::at($system, $a[0], $a[1], $a[2] + $undulationA);
        $to = GridPoint::at($system, $b[0], $b[1], $b[2] + $undulationB);
        $middle = GridPoint::at(
            $system, ($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0,
            ($from->ellipsoidalHeight + $to->ellipsoidalHeight) / 2.0,
        );
        $geodesic = (new Geodesic($system->ellipsoid()))->inverse($from->latDegrees, $from->lonDegrees, $to->latDegrees, $to->lonDegrees);
        $p = $system->ellipsoid()->toCartesian(deg2rad($from->latDegrees), deg2rad($from->lonDegrees), $from->ellipsoidalHeight);
        $q = $system->ellipsoid()->toCartesian(deg2rad($to->latDegrees), deg2rad($to->lonDegrees), $to->ellipsoidalHeight);
        $grid = hypot($b[0] - $a[0], $b[1] - $a[1]);
        $bearing = fmod(rad2deg(atan2($b[0] - $a[0], $b[1] - $a[1])) + 360.0, 360.0);
        $factor = $middle->heightFactor;
        $turn = static fn (float $x): float => fmod($x + 360.0, 360.0);

        return new self(
            $from, $to, $grid, $geodesic['distance'] / $factor, $geodesic['distance'],
            sqrt(($q[0] - $p[0]) ** 2 + ($q[1] - $p[1]) ** 2 + ($q[2] - $p[2]) ** 2),
            $bearing, $turn($geodesic['azimuth1']), $turn($geodesic['azimuth2'] + 180.0), $b[2] - $a[2],
            ($from->scaleAlong($bearing) + 4.0 * $middle->scaleAlong($bearing) + $to->scaleAlong($bearing)) / 6.0, $factor,
        );
    }

    public function combined(): float
    {
        return $this->lineScale * $this->lineHeightFactor;
    }
}
