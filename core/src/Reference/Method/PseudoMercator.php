<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Popular visualisation pseudo-Mercator (EPSG method 1024): geodetic latitudes through the formulas of a sphere. Not
 * conformal; for pictures.
 */
final readonly class PseudoMercator implements Projection
{
    public function __construct(
        private Ellipsoid $ellipsoid,
        private float $originLon,
        private float $falseEasting,
        private float $falseNorthing,
    ) {
    }

    public function forward(float $lat, float $lon): array
    {
        if (is_nan($lat) || abs($lat) > 1.57) {
            throw Turn::outside('pseudo-Mercator', $lat, $lon);
        }

        return [
            $this->falseEasting + $this->ellipsoid->a * Turn::difference($lon, $this->originLon),
            $this->falseNorthing + $this->ellipsoid->a * asinh(tan($lat)),
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $d = ($easting - $this->falseEasting) / $this->ellipsoid->a;
        $psi = ($northing - $this->falseNorthing) / $this->ellipsoid->a;
        if (is_nan($d + $psi) || abs($d) > \M_PI * 1.0000001 || abs($psi) > 10.0) {
            throw Turn::outsidePlane('pseudo-Mercator', $easting, $northing);
        }

        return [atan(sinh($psi)), $this->originLon + $d];
    }
}
