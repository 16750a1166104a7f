<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Reference\ProjectedSystem;

/**
 * A projected system with ellipsoidal heights, solved in three dimensions on its ellipsoid.
 *
 * The Jacobian from grid coordinates to the local horizon comes from central differences of the projection
 * (step 1e-6 rad, relative error below 1e-9), so that it holds for any projection.
 */
final class GridFrame implements Frame
{
    private const STEP_RADIANS = 1e-6;

    public function __construct(public readonly ProjectedSystem $system)
    {
    }

    public function isPlane(): bool
    {
        return false;
    }

    public function geometry(float $e, float $n, float $h): array
    {
        $projection = $this->system->projection;
        $ellipsoid = $this->system->ellipsoid;
        [$lat, $lon] = $projection->inverse($e, $n);
        $d = self::STEP_RADIANS;
        [$e1, $n1] = $projection->forward($lat + $d, $lon);
        [$e0, $n0] = $projection->forward($lat - $d, $lon);
        $eLat = ($e1 - $e0) / (2 * $d);
        $nLat = ($n1 - $n0) / (2 * $d);
        [$e1, $n1] = $projection->forward($lat, $lon + $d);
        [$e0, $n0] = $projection->forward($lat, $lon - $d);
        $eLon = ($e1 - $e0) / (2 * $d);
        $nLon = ($n1 - $n0) / (2 * $d);
        $det = $eLat * $nLon - $eLon * $nLat;
        $m = $ellipsoid->meridian($lat) + $h;
        $v = $ellipsoid->primeVertical($lat) + $h;
        $sinLat = sin($lat);
        $cosLat = cos($lat);
        $sinLon = sin($lon);
        $cosLon = cos($lon);
        $east = $v * $cosLat / $det;
        $north = $m / $det;

        return [
            'position' => $ellipsoid->toCartesian($lat, $lon, $h),
            'axes' => [
                -$sinLon, $cosLon, 0.0,
                -$sinLat * $cosLon, -$sinLat * $sinLon, $cosLat,
                $cosLat * $cosLon, $cosLat * $sinLon, $sinLat,
            ],
            'jacobian' => [
                -$nLat * $east, $eLat * $east, 0.0,
                $nLon * $north, -$eLon * $north, 0.0,
                0.0, 0.0, 1.0,
            ],
            'curvature' => [1.0 / $m, 1.0 / $v, $sinLat / $cosLat / $v],
            'lat' => $lat,
            'lon' => $lon,
        ];
    }

    public function coordinates(float $x, float $y, float $z): array
    {
        [$lat, $lon, $h] = $this->system->ellipsoid->toGeodetic($x, $y, $z);
        [$e, $n] = $this->system->projection->forward($lat, $lon);

        return [$e, $n, $h];
    }
}
