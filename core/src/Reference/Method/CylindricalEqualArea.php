<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** Lambert cylindrical equal area (EPSG method 9835; Snyder 1987, equations 10-12 to 10-20). */
final class CylindricalEqualArea implements Projection
{
    private readonly AuxiliaryLatitude $latitude;
    private readonly float $radius;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        float $parallel,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->radius = $ellipsoid->primeVertical($parallel) * cos($parallel);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);

        return [
            $this->falseEasting + $this->radius * Turn::difference($lon, $this->originLon),
            $this->falseNorthing + $this->ellipsoid->a ** 2 * $this->latitude->authalicQ(sin($lat)) / (2.0 * $this->radius),
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $d = ($easting - $this->falseEasting) / $this->radius;
        $q = 2.0 * $this->radius * ($northing - $this->falseNorthing) / $this->ellipsoid->a ** 2;
        if (is_nan($d + $q) || abs($d) > \M_PI * 1.0000001 || abs($q) > $this->latitude->qPole * 1.000000001) {
            throw Turn::outsidePlane('cylindrical equal area', $easting, $northing);
        }

        return [$this->latitude->fromAuthalicQ($q), $this->originLon + $d];
    }
}
