<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * New Zealand map grid (EPSG method 9811): a complex polynomial of the isometric latitude. Coefficients of Reilly (1973)
 * as printed in Guidance Note 7-2, section 3.6.2. The inverse closes on the forward formula by Newton's method.
 */
final class NewZealandMapGrid implements Projection
{
    private const NAME = 'New Zealand map grid';

    private const A = [
        0.6399175073, -0.1358797613, 0.063294409, -0.02526853, 0.0117879, -0.0055161, 0.0026906, -0.001333, 0.00067,
        -0.00034,
    ];
    private const B = [
        [0.7557853228, 0.0], [0.249204646, 0.003371507], [-0.001541739, 0.041058560], [-0.10162907, 0.01727609],
        [-0.26623489, -0.36249218], [-0.6870983, -1.1651967],
    ];
    private const C = [
        [1.3231270439, 0.0], [-0.577245789, -0.007809598], [0.508307513, -0.112208952], [-0.15094762, 0.18200602],
        [1.01418179, 1.64497696], [1.9660549, 2.5127645],
    ];
    private const D = [1.5627014243, 0.5185406398, -0.03333098, -0.1052906, -0.0368594, 0.007317, 0.0122, 0.00394, -0.0013];

    /** Hundred-thousands of seconds per radian, the polynomial's unit of latitude. */
    private const UNIT = 180.0 * 3600.0e-5 / \M_PI;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        private readonly float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
    }

    public function forward(float $lat, float $lon): array
    {
        $delta = Turn::difference($lon, $this->originLon);
        $phi = ($lat - $this->originLat) * self::UNIT;
        if (is_nan($phi + $delta) || abs($phi) > 0.45 || abs($delta) > 0.25) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $psi = 0.0;
        for ($k = 9; $k >= 0; --$k) {
            $psi = ($psi + self::A[$k]) * $phi;
        }
        [$x, $y] = self::polynomial(self::B, $psi, $delta);

        return [$this->falseEasting + $this->ellipsoid->a * $y, $this->falseNorthing + $this->ellipsoid->a * $x];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = ($northing - $this->falseNorthing) / $this->ellipsoid->a;
        $y = ($easting - $this->falseEasting) / $this->ellipsoid->a;
        if (is_nan($x + $y) || abs($x) > 0.25 || abs($y) > 0.25) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        [$psi, $delta] = self::polynomial(self::C, $x, $y);
        $phi = 0.0;
        for ($k = 8; $k >= 0; --$k) {
            $phi = ($phi + self::D[$k]) * $psi;
        }

        return NewtonInverse::solve(
            $this, $easting, $northing, $this->originLat + $phi / self::UNIT, $this->originLon + $delta, self::NAME,
        );
    }

    /**
     * @param list<array{float, float}> $c
     *
     * @return array{float, float} sum of c[k] z^(k + 1)
     */
    private static function polynomial(array $c, float $re, float $im): array
    {
        $a = 0.0;
        $b = 0.0;
        for ($k = \count($c) - 1; $k >= 0; --$k) {
            $p = $a + $c[$k][0];
            $q = $b + $c[$k][1];
            $a = $p * $re - $q * $im;
            $b = $p * $im + $q * $re;
        }

        return [$a, $b];
    }
}
