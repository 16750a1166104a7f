<?php

declare(strict_types=1);

namespace Mensura\Reference\Ground;

use Mensura\Reference\Crs\HorizontalSystem;

/**
 * What the grid does at one point: convergence and point scale factor from the derivatives of the projection itself
 * (central differences of 1e-6 rad, good to 1e-9), height factor R/(R + h) with R = sqrt(MN), and their product.
 */
final readonly class GridPoint
{
    private const STEP = 1e-6;

    private function __construct(
        public float $latDegrees,
        public float $lonDegrees,
        /** Degrees from grid north to true north, negated: geodetic azimuth less grid bearing. */
        public float $convergence,
        /** Point scale factor along the meridian; of a conformal projection in every direction. */
        public float $scale,
        /** Point scale factor across the meridian. */
        public float $scaleAcross,
        public float $heightFactor,
        public float $ellipsoidalHeight,
        /** Mean radius of curvature sqrt(MN), metres. */
        public float $radius,
        /** @var array{float, float, float, float} metres on the ellipsoid, north and east, by metre of grid east and north */
        private array $ground,
    ) {
    }

    /** @param float $height ellipsoidal, metres */
    public static function at(HorizontalSystem $system, float $e, float $n, float $height): self
    {
        [$lat, $lon] = $system->toGeographic($e, $n);
        $d = self::STEP;
        [$e1, $n1] = $system->fromGeographic($lat + $d, $lon);
        [$e0, $n0] = $system->fromGeographic($lat - $d, $lon);
        $eLat = ($e1 - $e0) / (2.0 * $d);
        $nLat = ($n1 - $n0) / (2.0 * $d);
        [$e1, $n1] = $system->fromGeographic($lat, $lon + $d);
        [$e0, $n0] = $system->fromGeographic($lat, $lon - $d);
        $eLon = ($e1 - $e0) / (2.0 * $d);
        $nLon = ($n1 - $n0) / (2.0 * $d);
        $ellipsoid = $system->ellipsoid();
        $m = $ellipsoid->meridian($lat);
        $v = $ellipsoid->primeVertical($lat);
        $radius = sqrt($m * $v);

        $det = $eLat * $nLon - $eLon * $nLat;
        $ground = [$m * $nLon / $det, -$m * $eLon / $det, -$v * cos($lat) * $nLat / $det, $v * cos($lat) * $eLat / $det];

        return new self(
            rad2deg($lat), rad2deg($lon), -rad2deg(atan2($eLat, $nLat)), hypot($eLat, $nLat) / $m,
            hypot($eLon, $nLon) / ($v * cos($lat)), $radius / ($radius + $height), $height, $radius, $ground,
        );
    }

    /** Point scale factor along a grid bearing (degrees), of a projection of any kind. */
    public function scaleAlong(float $bearing): float
    {
        $e = sin(deg2rad($bearing));
        $n = cos(deg2rad($bearing));

        return 1.0 / hypot($this->ground[0] * $e + $this->ground[1] * $n, $this->ground[2] * $e + $this->ground[3] * $n);
    }

    public function combined(): float
    {
        return $this->scale * $this->heightFactor;
    }
}
