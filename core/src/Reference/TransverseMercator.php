<?php

declare(strict_types=1);

namespace Mensura\Reference;

use Mensura\Geodesy\Ellipsoid;

/**
 * Ellipsoidal transverse Mercator (EPSG method 9807) by Krueger's series to the sixth order in the third flattening.
 *
 * Coefficients and method: Karney (2011), "Transverse Mercator with an accuracy of a few nanometers",
 * J. Geodesy 85, equations 7 to 12, 35 and 36. Better than 5 nm within 35 degrees of the central meridian;
 * refused beyond 60 degrees, where the series no longer holds.
 */
final class TransverseMercator implements Projection
{
    private const LIMIT_RADIANS = 60.0 * \M_PI / 180.0;

    private readonly float $e;

    /** Rectifying radius times the central scale. */
    private readonly float $radius;

    /** @var list<float> */
    private readonly array $alpha;

    /** @var list<float> */
    private readonly array $beta;

    private readonly float $originXi;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        private readonly float $originLat,
        private readonly float $originLon,
        private readonly float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->e = sqrt($ellipsoid->e2);
        $n = $ellipsoid->f / (2.0 - $ellipsoid->f);
        $n2 = $n * $n;
        $this->radius = $scale * $ellipsoid->a / (1.0 + $n) * (1.0 + $n2 * (1.0 / 4.0 + $n2 * (1.0 / 64.0 + $n2 / 256.0)));
        $this->alpha = [
            $n * (1 / 2 + $n * (-2 / 3 + $n * (5 / 16 + $n * (41 / 180 + $n * (-127 / 288 + $n * 7891 / 37800))))),
            $n2 * (13 / 48 + $n * (-3 / 5 + $n * (557 / 1440 + $n * (281 / 630 + $n * -1983433 / 1935360)))),
            $n2 * $n * (61 / 240 + $n * (-103 / 140 + $n * (15061 / 26880 + $n * 167603 / 181440))),
            $n2 * $n2 * (49561 / 161280 + $n * (-179 / 168 + $n * 6601661 / 7257600)),
            $n2 * $n2 * $n * (34729 / 80640 + $n * -3418889 / 1995840),
            $n2 * $n2 * $n2 * 212378941 / 319334400,
        ];
        $this->beta = [
            $n * (1 / 2 + $n * (-2 / 3 + $n * (37 / 96 + $n * (-1 / 360 + $n * (-81 / 512 + $n * 96199 / 604800))))),
            $n2 * (1 / 48 + $n * (1 / 15 + $n * (-437 / 1440 + $n * (46 / 105 + $n * -1118711 / 3870720)))),
            $n2 * $n * (17 / 480 + $n * (-37 / 840 + $n * (-209 / 4480 + $n * 5569 / 90720))),
            $n2 * $n2 * (4397 / 161280 + $n * (-11 / 504 + $n * -830251 / 7257600)),
            $n2 * $n2 * $n * (4583 / 161280 + $n * -108847 / 3991680),
            $n2 * $n2 * $n2 * 20648693 / 638668800,
        ];
        $this->originXi = $this->spherical($originLat, 0.0)[0];
    }

    public function forward(float $lat, float $lon): array
    {
        $delta = $lon - $this->originLon;
        $delta -= 2.0 * \M_PI * round($delta / (2.0 * \M_PI));
        if (abs($delta) > self::LIMIT_RADIANS || abs($lat) > \M_PI_2) {
            throw new OutsideProjection(\sprintf('Latitude %.6f, longitude %.6f degrees lies outside what this transverse Mercator projection can show (60 degrees either side of its central meridian).', rad2deg($lat), rad2deg($lon)));
        }
        [$xi, $eta] = $this->spherical($lat, $delta);

        return [$this->falseEasting + $this->radius * $eta, $this->falseNorthing + $this->radius * ($xi - $this->originXi)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $eta = ($easting - $this->falseEasting) / $this->radius;
        $xi = ($northing - $this->falseNorthing) / $this->radius + $this->originXi;
        if (!(abs($eta) < 1.4) || !(abs($xi) < 1.5 * \M_PI)) {
            throw new OutsideProjection(\sprintf('Easting %.3f, northing %.3f m lies outside what this transverse Mercator projection can show.', $easting, $northing));
        }
        $xi0 = $xi;
        $eta0 = $eta;
        for ($j = 1; $j <= 6; ++$j) {
            $b = $this->beta[$j - 1];
            $xi0 -= $b * sin(2 * $j * $xi) * cosh(2 * $j * $eta);
            $eta0 -= $b * cos(2 * $j * $xi) * sinh(2 * $j * $eta);
        }
        $sinh = sinh($eta0);
        $cos = cos($xi0);
        $conformal = sin($xi0) / hypot($sinh, $cos);
        $lon = atan2($sinh, $cos);
        // Newton on tan(lat), Karney 2011, equations 19 to 21.
        $e2 = $this->ellipsoid->e2;
        $tau = $conformal / sqrt(1.0 - $e2);
        $target = $conformal;
        for ($i = 0; $i < 8; ++$i) {
            $t = $this->conformalTangent($tau);
            $step = ($target - $t) / hypot(1.0, $t) * (1.0 + (1.0 - $e2) * $tau * $tau) / ((1.0 - $e2) * hypot(1.0, $tau));
            $tau += $step;
            if (abs($step) <= 1e-16 * max(1.0, abs($tau))) {
                break;
            }
        }

        return [atan($tau), $this->originLon + $lon];
    }

    /** @return array{float, float} the rectified xi and eta of a latitude and a longitude from the central meridian */
    private function spherical(float $lat, float $delta): array
    {
        $t = $this->conformalTangent(tan($lat));
        $cos = cos($delta);
        $xi0 = atan2($t, $cos);
        $eta0 = asinh(sin($delta) / hypot($t, $cos));
        $xi = $xi0;
        $eta = $eta0;
        for ($j = 1; $j <= 6; ++$j) {
            $a = $this->alpha[$j - 1];
            $xi += $a * sin(2 * $j * $xi0) * cosh(2 * $j * $eta0);
            $eta += $a * cos(2 * $j * $xi0) * sinh(2 * $j * $eta0);
        }

        return [$xi, $eta];
    }

    private function conformalTangent(float $tau): float
    {
        $root = hypot(1.0, $tau);
        $sigma = sinh($this->e * atanh($this->e * $tau / $root));

        return $tau * hypot(1.0, $sigma) - $sigma * $root;
    }
}
