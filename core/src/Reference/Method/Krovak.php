<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Krovak oblique conic (EPSG methods 9819 and 1041; Guidance Note 7-2, section 3.1.4), given as easting and northing:
 * both variants share one formula, the southings and westings of 9819 being the negatives of these.
 */
final class Krovak implements Projection
{
    private const NAME = 'Krovak';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $b;
    private readonly float $lnT0;
    private readonly float $n;
    private readonly float $radius;
    private readonly float $sinAlpha;
    private readonly float $cosAlpha;

    public function __construct(
        Ellipsoid $ellipsoid,
        float $centreLat,
        private readonly float $originLon,
        float $coLatitude,
        private readonly float $pseudoParallel,
        float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $e2 = $ellipsoid->e2;
        $sin = sin($centreLat);
        $a = $ellipsoid->a * sqrt(1.0 - $e2) / (1.0 - $e2 * $sin * $sin);
        $this->b = sqrt(1.0 + $e2 * cos($centreLat) ** 4 / (1.0 - $e2));
        $gamma = asin($sin / $this->b);
        $this->lnT0 = asinh(tan($gamma)) - $this->b * $this->latitude->isometric($centreLat);
        $this->n = sin($pseudoParallel);
        $this->radius = $scale * $a / tan($pseudoParallel);
        $this->sinAlpha = sin($coLatitude);
        $this->cosAlpha = cos($coLatitude);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        if (abs($lat) > 1.57) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $u = atan(sinh($this->b * $this->latitude->isometric($lat) + $this->lnT0));
        $v = $this->b * Turn::difference($this->originLon, $lon);
        $sinT = $this->cosAlpha * sin($u) + $this->sinAlpha * cos($u) * cos($v);
        if (abs($sinT) > 1.0 - 1e-9 || $sinT < -0.5) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        // Longitude on the oblique sphere from its two components: the arcsine alone loses the half beyond 90 degrees.
        $d = atan2(cos($u) * sin($v), $this->cosAlpha * cos($u) * cos($v) - $this->sinAlpha * sin($u));
        $theta = $this->n * $d;
        $r = $this->radius * exp($this->n * (asinh(tan($this->pseudoParallel)) - atanh($sinT)));

        return [-($r * sin($theta) + $this->falseEasting), -($r * cos($theta) + $this->falseNorthing)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = -$northing - $this->falseNorthing;
        $y = -$easting - $this->falseEasting;
        $r = sqrt($x * $x + $y * $y);
        if (is_nan($r) || $r < 1.0 || $r > 1e7) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $d = atan2($y, $x) / $this->n;
        if (abs($d) > \M_PI) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $sinT = tanh(asinh(tan($this->pseudoParallel)) - log($r / $this->radius) / $this->n);
        $cosT = sqrt(1.0 - $sinT * $sinT);
        $sinU = $this->cosAlpha * $sinT - $this->sinAlpha * $cosT * cos($d);
        $cosUcosV = $this->sinAlpha * $sinT + $this->cosAlpha * $cosT * cos($d);
        $v = atan2($cosT * sin($d), $cosUcosV);

        return [
            $this->latitude->fromIsometric((atanh(max(-1.0 + 1e-16, min(1.0 - 1e-16, $sinU))) - $this->lnT0) / $this->b),
            $this->originLon - $v / $this->b,
        ];
    }
}
