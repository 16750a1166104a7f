<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Reference\OutsideProjection;

/** Small helps every projection needs: longitude differences within half a turn, and one wording of "outside". */
final class Turn
{
    /** Longitude difference brought within -pi to pi. */
    public static function difference(float $lon, float $from): float
    {
        $d = $lon - $from;

        return $d > \M_PI || $d < -\M_PI ? $d - 2.0 * \M_PI * round($d / (2.0 * \M_PI)) : $d;
    }

    public static function latitude(float $lat): void
    {
        if (is_nan($lat) || abs($lat) > \M_PI_2 + 1e-12) {
            throw new OutsideProjection(\sprintf('latitude %.9g degrees is not between -90 and 90', rad2deg($lat)));
        }
    }

    public static function outside(string $projection, float $lat, float $lon): OutsideProjection
    {
        return new OutsideProjection(\sprintf(
            'latitude %.6f, longitude %.6f degrees lies outside what this %s projection can show',
            rad2deg($lat),
            rad2deg($lon),
            $projection,
        ));
    }

    public static function outsidePlane(string $projection, float $e, float $n): OutsideProjection
    {
        return new OutsideProjection(\sprintf(
            'easting %.3f, northing %.3f m lies outside what this %s projection can show',
            $e,
            $n,
            $projection,
        ));
    }
}
