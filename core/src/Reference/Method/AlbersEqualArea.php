<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/** Albers equal area conic (EPSG method 9822; Snyder 1987, equations 14-1 to 14-19). */
final class AlbersEqualArea implements Projection
{
    private const NAME = 'Albers equal area';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $a;
    private readonly float $n;
    private readonly float $c;
    private readonly float $originRadius;

    public function __construct(
        Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        float $lat1,
        float $lat2,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->a = $ellipsoid->a;
        $m1 = cos($lat1) / sqrt(1.0 - $ellipsoid->e2 * sin($lat1) ** 2);
        $m2 = cos($lat2) / sqrt(1.0 - $ellipsoid->e2 * sin($lat2) ** 2);
        $q1 = $this->latitude->authalicQ(sin($lat1));
        $this->n = abs($lat1 - $lat2) < 1e-12 ? sin($lat1) : ($m1 * $m1 - $m2 * $m2) / ($this->latitude->authalicQ(sin($lat2)) - $q1);
        if (!is_finite($this->n) || abs($this->n) < 1e-9) {
            throw new OutsideProjection('the standard parallels of an Albers conic must not be opposite');
        }
        $this->c = $m1 * $m1 + $this->n * $q1;
        $this->originRadius = $this->radius($originLat);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $r = $this->radius($lat);
        $theta = $this->n * Turn::difference($lon, $this->originLon);

        return [$this->falseEasting + $r * sin($theta), $this->falseNorthing + $this->originRadius - $r * cos($theta)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $sign = $this->n > 0.0 ? 1.0 : -1.0;
        $x = $sign * ($easting - $this->falseEasting);
        $y = $sign * ($this->originRadius - ($northing - $this->falseNorthing));
        $r = sqrt($x * $x + $y * $y);
        $q = ($this->c - ($r * $this->n / $this->a) ** 2) / $this->n;
        $d = atan2($x, $y) / $this->n;
        if (is_nan($q + $d) || abs($q) > $this->latitude->qPole * (1.0 + 1e-12) || abs($d) > \M_PI * 1.0000001) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }

        return [$this->latitude->fromAuthalicQ($q), $this->originLon + $d];
    }

    private function radius(float $lat): float
    {
        $inside = $this->c - $this->n * $this->latitude->authalicQ(sin($lat));
        if ($inside < 0.0) {
            throw new OutsideProjection(\sprintf(
                'latitude %.6f degrees lies outside what this %s projection can show', rad2deg($lat), self::NAME,
            ));
        }

        return $this->a * sqrt($inside) / $this->n;
    }
}
