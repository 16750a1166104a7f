<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Ellipsoidal transverse Mercator (EPSG method 9807) by Krueger's series to the sixth order in the third flattening.
 *
 * Coefficients and method: Karney (2011), "Transverse Mercator with an accuracy of a few nanometers",
 * J. Geodesy 85, equations 7 to 12, 35 and 36, summed by Clenshaw on the complex argument. Better than 5 nm
 * within 35 degrees of the central meridian; refused beyond 60 degrees, where the series no longer holds.
 */
final class TransverseMercator implements Projection
{
    private const LIMIT_RADIANS = 60.0 * \M_PI / 180.0;
    private const NAME = 'transverse Mercator';

    private readonly float $e;

    /** Rectifying radius times the central scale. */
    private readonly float $radius;

    /** @var list<float> */
    private readonly array $alpha;

    /** @var list<float> */
    private readonly array $beta;

    /** @var list<float> */
    private readonly array $delta;

    private readonly float $originXi;

    /** The last sum of a series, real and imaginary part: read at once by who asked for it, instead of a list made for it. */
    private float $real = 0.0;
    private float $imaginary = 0.0;

    public function __construct(
        Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        float $scale,
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
            $n * (-1 / 2 + $n * (2 / 3 + $n * (-37 / 96 + $n * (1 / 360 + $n * (81 / 512 + $n * -96199 / 604800))))),
            $n2 * (-1 / 48 + $n * (-1 / 15 + $n * (437 / 1440 + $n * (-46 / 105 + $n * 1118711 / 3870720)))),
            $n2 * $n * (-17 / 480 + $n * (37 / 840 + $n * (209 / 4480 + $n * -5569 / 90720))),
            $n2 * $n2 * (-4397 / 161280 + $n * (11 / 504 + $n * 830251 / 7257600)),
            $n2 * $n2 * $n * (-4583 / 161280 + $n * 108847 / 3991680),
            $n2 * $n2 * $n2 * -20648693 / 638668800,
        ];
        $this->delta = [
            $n * (2 + $n * (-2 / 3 + $n * (-2 + $n * (116 / 45 + $n * (26 / 45 + $n * -2854 / 675))))),
            $n2 * (7 / 3 + $n * (-8 / 5 + $n * (-227 / 45 + $n * (2704 / 315 + $n * 2323 / 945)))),
            $n2 * $n * (56 / 15 + $n * (-136 / 35 + $n * (-1262 / 105 + $n * 73814 / 2835))),
            $n2 * $n2 * (4279 / 630 + $n * (-332 / 35 + $n * -399572 / 14175)),
            $n2 * $n2 * $n * (4174 / 315 + $n * -144838 / 6237),
            $n2 * $n2 * $n2 * 601676 / 22275,
        ];
        $this->originXi = $this->rectified($originLat, 0.0);
    }

    public function forward(float $lat, float $lon): array
    {
        $delta = $lon - $this->originLon;
        if ($delta > \M_PI || $delta < -\M_PI) {
            $delta = Turn::difference($lon, $this->originLon);
        }
        if ($delta > self::LIMIT_RADIANS || $delta < -self::LIMIT_RADIANS || $lat > \M_PI_2 || $lat < -\M_PI_2 || is_nan($lat + $lon)) {
            Turn::latitude($lat);
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $xi = $this->rectified($lat, $delta);

        return [$this->falseEasting + $this->radius * $this->imaginary, $this->falseNorthing + $this->radius * ($xi - $this->originXi)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $eta = ($easting - $this->falseEasting) / $this->radius;
        $xi = ($northing - $this->falseNorthing) / $this->radius + $this->originXi;
        if (is_nan($eta + $xi) || abs($eta) > 1.4 || abs($xi) > \M_PI_2 + 1e-9) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $s = sin($xi);
        $c = cos($xi);
        $sh = sinh($eta);
        $this->sum($this->beta, 2.0 * $s * $c, ($c - $s) * ($c + $s), 2.0 * $sh * sqrt(1.0 + $sh * $sh), 1.0 + 2.0 * $sh * $sh);
        $xi += $this->real;
        $sh = sinh($eta + $this->imaginary);
        $c = cos($xi);
        $lon = atan2($sh, $c);
        if (abs($lon) > self::LIMIT_RADIANS + 1e-9) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        // Geodetic from conformal latitude by its own series (Krueger 1912, in the third flattening), Clenshaw again.
        $s = sin($xi) / sqrt($sh * $sh + $c * $c);
        $chi = atan($s);
        $square = 1.0 / (1.0 + $s * $s);
        $two = 2.0 * (1.0 - $s * $s) * $square;
        [$d1, $d2, $d3, $d4, $d5, $d6] = $this->delta;
        $u0 = $two * $d6 + $d5;
        $u1 = $two * $u0 - $d6 + $d4;
        $u0 = $two * $u1 - $u0 + $d3;
        $u1 = $two * $u0 - $u1 + $d2;
        $u0 = $two * $u1 - $u0 + $d1;

        return [$chi + $u0 * 2.0 * $s * $square, $this->originLon + $lon];
    }

    /** The rectified xi of a latitude and a longitude from the central meridian; eta is left in $imaginary. */
    private function rectified(float $lat, float $delta): float
    {
        $tau = tan($lat);
        $root = sqrt(1.0 + $tau * $tau);
        $sigma = sinh($this->e * atanh($this->e * $tau / $root));
        $t = $tau * sqrt(1.0 + $sigma * $sigma) - $sigma * $root;
        $cos = cos($delta);
        $h = sqrt($t * $t + $cos * $cos);
        // Sine and cosine of xi, hyperbolic sine of eta on the conformal sphere: the series needs no more than these.
        $s = $t / $h;
        $c = $cos / $h;
        $sh = sin($delta) / $h;
        $this->sum($this->alpha, 2.0 * $s * $c, ($c - $s) * ($c + $s), 2.0 * $sh * sqrt(1.0 + $sh * $sh), 1.0 + 2.0 * $sh * $sh);
        $this->imaginary += asinh($sh);

        return atan2($t, $cos) + $this->real;
    }

    /**
     * Sum of c[j] sin(2 j (xi + i eta)), j from 1 to 6, from the functions of 2 xi and 2 eta.
     *
     * @param list<float> $c
     */
    private function sum(array $c, float $sin, float $cos, float $sinh, float $cosh): void
    {
        [$c1, $c2, $c3, $c4, $c5, $c6] = $c;
        $a = 2.0 * $cos * $cosh;
        $b = -2.0 * $sin * $sinh;
        $p1 = $a * $c6 + $c5;
        $q1 = $b * $c6;
        $p0 = $a * $p1 - $b * $q1 - $c6 + $c4;
        $q0 = $b * $p1 + $a * $q1;
        $p1 = $a * $p0 - $b * $q0 - $p1 + $c3;
        $q1 = $b * $p0 + $a * $q0 - $q1;
        $p0 = $a * $p1 - $b * $q1 - $p0 + $c2;
        $q0 = $b * $p1 + $a * $q1 - $q0;
        $p1 = $a * $p0 - $b * $q0 - $p1 + $c1;
        $q1 = $b * $p0 + $a * $q0 - $q1;
        $real = $sin * $cosh;
        $imaginary = $cos * $sinh;

        $this->real = $real * $p1 - $imaginary * $q1;
        $this->imaginary = $real * $q1 + $imaginary * $p1;
    }
}
