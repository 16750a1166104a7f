<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/** Bonne pseudo-conic (EPSG methods 9827 and, reversed, 9828; Snyder 1987, equations 19-1 to 19-16). */
final class Bonne implements Projection
{
    private const NAME = 'Bonne';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $apex;
    private readonly float $originDistance;
    private readonly float $sign;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        if (abs($originLat) < 1e-6) {
            throw new OutsideProjection('a Bonne projection cannot have its parallel on the equator');
        }
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->originDistance = $this->latitude->meridianDistance($originLat);
        $this->apex = $this->parallelRadius($originLat) / sin($originLat);
        $this->sign = $originLat > 0.0 ? 1.0 : -1.0;
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $r = $this->apex + $this->originDistance - $this->latitude->meridianDistance($lat);
        if (abs($r) < 1e-6) {
            return [$this->falseEasting, $this->falseNorthing + $this->apex];
        }
        $theta = $this->parallelRadius($lat) * Turn::difference($lon, $this->originLon) / $r;

        return [$this->falseEasting + $r * sin($theta), $this->falseNorthing + $this->apex - $r * cos($theta)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $this->sign * ($easting - $this->falseEasting);
        $y = $this->sign * ($this->apex - ($northing - $this->falseNorthing));
        $r = $this->sign * sqrt($x * $x + $y * $y);
        $lat = $this->latitude->fromMeridianDistance($this->apex + $this->originDistance - $r);
        if (is_nan($lat) || abs($lat) > \M_PI_2) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $m = $this->parallelRadius($lat);
        $delta = $m < 1e-6 ? 0.0 : $r * atan2($x, $y) / $m;
        if (abs($delta) > \M_PI) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }

        return [$lat, $this->originLon + $delta];
    }

    private function parallelRadius(float $lat): float
    {
        return $this->ellipsoid->primeVertical($lat) * cos($lat);
    }
}
