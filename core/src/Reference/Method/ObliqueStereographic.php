<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** Oblique stereographic by way of a conformal sphere (EPSG method 9809; Guidance Note 7-2, section 3.3.1). */
final class ObliqueStereographic implements Projection
{
    private const NAME = 'oblique stereographic';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $n;
    private readonly float $lnC;
    private readonly float $sinOrigin;
    private readonly float $cosOrigin;
    private readonly float $diameter;

    public function __construct(
        Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $e2 = $ellipsoid->e2;
        $sin = sin($originLat);
        $this->n = sqrt(1.0 + $e2 * cos($originLat) ** 4 / (1.0 - $e2));
        // Latitude of the origin on the conformal sphere and the constant that takes the isometric latitude there.
        $w1 = exp(2.0 * $this->n * $this->latitude->isometric($originLat));
        $sin0 = ($w1 - 1.0) / ($w1 + 1.0);
        $c = ($this->n + $sin) * (1.0 - $sin0) / (($this->n - $sin) * (1.0 + $sin0));
        $this->lnC = log($c);
        $w2 = $c * $w1;
        $this->sinOrigin = ($w2 - 1.0) / ($w2 + 1.0);
        $this->cosOrigin = sqrt(1.0 - $this->sinOrigin ** 2);
        $this->diameter = 2.0 * $scale * sqrt($ellipsoid->meridian($originLat) * $ellipsoid->primeVertical($originLat));
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $d = $this->n * Turn::difference($lon, $this->originLon);
        if (abs($lat) > \M_PI_2 - 1e-12) {
            $sin = $lat > 0.0 ? 1.0 : -1.0;
            $cos = 0.0;
        } else {
            $half = $this->n * $this->latitude->isometric($lat) + 0.5 * $this->lnC;
            $sin = tanh($half);
            $cos = 1.0 / cosh($half);
        }
        $b = 1.0 + $sin * $this->sinOrigin + $cos * $this->cosOrigin * cos($d);
        if ($b < 1e-3) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }

        return [
            $this->falseEasting + $this->diameter * $cos * sin($d) / $b,
            $this->falseNorthing + $this->diameter * ($sin * $this->cosOrigin - $cos * $this->sinOrigin * cos($d)) / $b,
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = ($easting - $this->falseEasting) / $this->diameter;
        $y = ($northing - $this->falseNorthing) / $this->diameter;
        $r = sqrt($x * $x + $y * $y);
        if (is_nan($r) || $r > 30.0) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $c = 2.0 * atan($r);
        $sinC = sin($c);
        $cosC = cos($c);
        if (0.0 === $r) {
            $sin = $this->sinOrigin;
            $d = 0.0;
        } else {
            $sin = $cosC * $this->sinOrigin + $y * $sinC * $this->cosOrigin / $r;
            $d = atan2($x * $sinC, $r * $this->cosOrigin * $cosC - $y * $this->sinOrigin * $sinC);
        }
        if (abs($d) > $this->n * \M_PI) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $sin = max(-1.0 + 1e-16, min(1.0 - 1e-16, $sin));

        return [$this->latitude->fromIsometric((atanh($sin) - 0.5 * $this->lnC) / $this->n), $this->originLon + $d / $this->n];
    }
}
