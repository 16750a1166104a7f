<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/**
 * Lambert conic conformal (EPSG Guidance Note 7-2, section 3.1.1; methods 9801, 9802, 9803, 9826, 1051): one cone
 * given by its constant n, its scaled radius and its pole, whichever way the parameters state it.
 */
final class Lambert implements Projection
{
    /** The constant turn of the Belgian variant, 29.2985 seconds. */
    public const BELGIAN_TURN = 29.2985 / 3600.0 * \M_PI / 180.0;

    private const NAME = 'Lambert conic';

    private readonly AuxiliaryLatitude $latitude;

    private function __construct(
        Ellipsoid $ellipsoid,
        private readonly float $n,
        /** Radius of the equator's arc, m: a F k. */
        private readonly float $radius,
        private readonly float $originRadius,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
        private readonly float $turn,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
    }

    public static function oneParallel(
        Ellipsoid $ellipsoid,
        float $originLat,
        float $originLon,
        float $scale,
        float $falseEasting,
        float $falseNorthing,
    ): self {
        $n = sin($originLat);
        if (abs($n) < 1e-6 || abs($originLat) > \M_PI_2 - 1e-9) {
            throw new OutsideProjection('a Lambert conic cannot have its parallel on the equator or at a pole');
        }
        $latitude = new AuxiliaryLatitude($ellipsoid);
        $m = self::parallelRadius($ellipsoid, $originLat);
        $f = $m / $n * exp($n * $latitude->isometric($originLat));

        return new self(
            $ellipsoid, $n, $ellipsoid->a * $f * $scale, $ellipsoid->a * $m / $n * $scale, $originLon, $falseEasting,
            $falseNorthing, 0.0,
        );
    }

    public static function twoParallels(
        Ellipsoid $ellipsoid,
        float $originLat,
        float $originLon,
        float $lat1,
        float $lat2,
        float $falseEasting,
        float $falseNorthing,
        float $turn = 0.0,
        float $scale = 1.0,
    ): self {
        $latitude = new AuxiliaryLatitude($ellipsoid);
        $m1 = self::parallelRadius($ellipsoid, $lat1);
        $psi1 = $latitude->isometric($lat1);
        if (abs($lat1 - $lat2) < 1e-12) {
            $n = sin($lat1);
        } else {
            $n = log($m1 / self::parallelRadius($ellipsoid, $lat2)) / ($latitude->isometric($lat2) - $psi1);
        }
        if (!is_finite($n) || abs($n) < 1e-9) {
            throw new OutsideProjection('the standard parallels of a Lambert conic must not be opposite or at a pole');
        }
        $radius = $ellipsoid->a * $m1 / $n * exp($n * $psi1) * $scale;
        $origin = abs($originLat) > \M_PI_2 - 1e-12 ? 0.0 : $radius * exp(-$n * $latitude->isometric($originLat));

        return new self($ellipsoid, $n, $radius, $origin, $originLon, $falseEasting, $falseNorthing, $turn);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        if (abs($lat) > \M_PI_2 - 1e-12) {
            if ($lat * $this->n < 0.0) {
                throw Turn::outside(self::NAME, $lat, $lon);
            }
            $r = 0.0;
        } else {
            $r = $this->radius * exp(-$this->n * $this->latitude->isometric($lat));
            if (!is_finite($r) || abs($r) > 1e9) {
                throw Turn::outside(self::NAME, $lat, $lon);
            }
        }
        $theta = $this->n * Turn::difference($lon, $this->originLon) - $this->turn;

        return [$this->falseEasting + $r * sin($theta), $this->falseNorthing + $this->originRadius - $r * cos($theta)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $easting - $this->falseEasting;
        $y = $this->originRadius - ($northing - $this->falseNorthing);
        $sign = $this->n > 0.0 ? 1.0 : -1.0;
        $r = $sign * sqrt($x * $x + $y * $y);
        $theta = atan2($sign * $x, $sign * $y) + $this->turn;
        $lon = $this->originLon + $theta / $this->n;
        if (abs($theta / $this->n) > \M_PI * 1.0000001 || is_nan($theta)) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        if (0.0 === abs($r)) {
            return [$sign * \M_PI_2, $this->originLon];
        }

        return [$this->latitude->fromIsometric(-log($r / $this->radius) / $this->n), $lon];
    }

    /** Radius of the parallel over the semi-major axis. */
    private static function parallelRadius(Ellipsoid $ellipsoid, float $lat): float
    {
        $s = sin($lat);

        return cos($lat) / sqrt(1.0 - $ellipsoid->e2 * $s * $s);
    }
}
