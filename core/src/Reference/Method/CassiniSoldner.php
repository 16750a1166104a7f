<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Cassini-Soldner and its hyperbolic form (EPSG methods 9806 and 9833; Guidance Note 7-2, section 3.2.2). The series
 * is the definition; it is refused beyond 12 degrees from the origin's meridian, where its next terms pass a metre.
 */
final class CassiniSoldner implements Projection
{
    private const LIMIT_RADIANS = 12.0 * \M_PI / 180.0;
    private const NAME = 'Cassini-Soldner';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $originDistance;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
        private readonly bool $hyperbolic = false,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->originDistance = $this->latitude->meridianDistance($originLat);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $d = Turn::difference($lon, $this->originLon);
        if (abs($d) > self::LIMIT_RADIANS) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $e2 = $this->ellipsoid->e2;
        $cos = cos($lat);
        $tan = tan($lat);
        $a = $d * $cos;
        $a2 = $a * $a;
        $t = $tan * $tan;
        $c = $e2 * $cos * $cos / (1.0 - $e2);
        $v = $this->ellipsoid->primeVertical($lat);
        $x = $this->latitude->meridianDistance($lat) - $this->originDistance + $v * $tan * $a2 * (0.5 + (5.0 - $t + 6.0 * $c) * $a2 / 24.0);
        if ($this->hyperbolic) {
            $x -= $x ** 3 / (6.0 * $this->ellipsoid->meridian($lat) * $v);
        }

        return [
            $this->falseEasting + $v * $a * (1.0 - $a2 * ($t / 6.0 + (8.0 - $t + 8.0 * $c) * $t * $a2 / 120.0)),
            $this->falseNorthing + $x,
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $easting - $this->falseEasting;
        $y = $northing - $this->falseNorthing;
        $foot = $this->latitude->fromMeridianDistance($this->originDistance + $y);
        if (is_nan($x + $foot) || abs($foot) > 1.55 || abs($x) > 1.5e6) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }

        return NewtonInverse::solve(
            $this, $easting, $northing, $foot,
            $this->originLon + $x / ($this->ellipsoid->primeVertical($foot) * cos($foot)), self::NAME,
        );
    }
}
