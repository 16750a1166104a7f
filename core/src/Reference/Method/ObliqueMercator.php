<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/**
 * Hotine oblique Mercator, variants A and B (EPSG methods 9812 and 9815; Guidance Note 7-2, section 3.2.4). With an
 * azimuth of 90 degrees variant B is the Swiss oblique Mercator.
 */
final class ObliqueMercator implements Projection
{
    private const NAME = 'oblique Mercator';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $b;
    private readonly float $a;
    private readonly float $lnH;
    private readonly float $sinGamma;
    private readonly float $cosGamma;
    private readonly float $originLon;
    private readonly float $centre;
    private readonly float $sinRectified;
    private readonly float $cosRectified;

    /** @param bool $atCentre variant B: the false values belong to the projection centre, not to the natural origin */
    public function __construct(
        Ellipsoid $ellipsoid,
        float $centreLat,
        float $centreLon,
        float $azimuth,
        float $rectified,
        float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
        bool $atCentre,
    ) {
        if (abs($centreLat) > \M_PI_2 - 1e-9) {
            throw new OutsideProjection('the centre of an oblique Mercator projection cannot be a pole');
        }
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $e2 = $ellipsoid->e2;
        $sin = sin($centreLat);
        $cos = cos($centreLat);
        $w = 1.0 - $e2 * $sin * $sin;
        $this->b = sqrt(1.0 + $e2 * $cos ** 4 / (1.0 - $e2));
        $this->a = $ellipsoid->a * $this->b * $scale * sqrt(1.0 - $e2) / $w;
        $d = $this->b * sqrt(1.0 - $e2) / ($cos * sqrt($w));
        $root = sqrt(max(0.0, $d * $d - 1.0)) * ($centreLat < 0.0 ? -1.0 : 1.0);
        $f = $d + $root;
        $this->lnH = log($f) - $this->b * $this->latitude->isometric($centreLat);
        $sinGamma = sin($azimuth) / $d;
        if (abs($sinGamma) > 1.0) {
            $sinGamma = $sinGamma > 0.0 ? 1.0 : -1.0;
        }
        $gamma = asin($sinGamma);
        $this->sinGamma = $sinGamma;
        $this->cosGamma = cos($gamma);
        // asin(G tan gamma0) of the guidance note by its two components: near an azimuth of 90 degrees the arcsine alone loses centimetres.
        $this->originLon = $centreLon - atan2($root * sin($azimuth), $d * abs(cos($azimuth))) / $this->b;
        $right = abs(abs($azimuth) - \M_PI_2) < 1e-10;
        $u = $right
            ? $this->a * Turn::difference($centreLon, $this->originLon)
            : $this->a / $this->b * atan2(abs($root), cos($azimuth)) * ($centreLat < 0.0 ? -1.0 : 1.0);
        $this->centre = $atCentre ? $u : 0.0;
        $this->sinRectified = sin($rectified);
        $this->cosRectified = cos($rectified);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        if (abs($lat) > \M_PI_2 - 1e-9) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $lnQ = $this->lnH + $this->b * $this->latitude->isometric($lat);
        $s = sinh($lnQ);
        $t = cosh($lnQ);
        $angle = $this->b * Turn::difference($lon, $this->originLon);
        $v = sin($angle);
        $u = (-$v * $this->cosGamma + $s * $this->sinGamma) / $t;
        if (abs($u) > 1.0 - 1e-9) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $across = -$this->a * atanh($u) / $this->b;
        $along = $this->a * atan2($s * $this->cosGamma + $v * $this->sinGamma, cos($angle)) / $this->b - $this->centre;

        return [
            $this->falseEasting + $across * $this->cosRectified + $along * $this->sinRectified,
            $this->falseNorthing + $along * $this->cosRectified - $across * $this->sinRectified,
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $easting - $this->falseEasting;
        $y = $northing - $this->falseNorthing;
        $across = $x * $this->cosRectified - $y * $this->sinRectified;
        $along = $y * $this->cosRectified + $x * $this->sinRectified + $this->centre;
        $q = -$this->b * $across / $this->a;
        $angle = $this->b * $along / $this->a;
        if (is_nan($q + $angle) || abs($q) > 10.0 || abs($angle) > \M_PI) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $s = sinh($q);
        $v = sin($angle);
        $u = ($v * $this->cosGamma + $s * $this->sinGamma) / cosh($q);
        if (abs($u) > 1.0 - 1e-12) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }

        return [
            $this->latitude->fromIsometric((atanh($u) - $this->lnH) / $this->b),
            $this->originLon - atan2($s * $this->cosGamma - $v * $this->sinGamma, cos($angle)) / $this->b,
        ];
    }
}
