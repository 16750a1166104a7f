<?php

declare(strict_types=1);

namespace Mensura\Geodesy;

/**
 * Geodesics on an ellipsoid: direct and inverse problem, to a few nanometres everywhere, nearly antipodal points
 * included. Algorithm and sixth-order series of Karney (2013), "Algorithms for geodesics", J. Geodesy 87, 43-55 (and
 * its addenda). Latitudes, longitudes and azimuths in degrees, azimuths clockwise from north, lengths in metres.
 */
final readonly class Geodesic
{
    private const TINY = 1.4916681462400413e-154;
    private const EPSILON = 2.220446049250313e-16;
    private const TOL1 = 200.0 * self::EPSILON;
    private const TOL2 = 1.4901161193847656e-8;
    private const XTHRESH = 1000.0 * self::TOL2;
    private const MOST = 83;

    private float $a;
    private float $f;
    private float $f1;
    private float $e2;
    private float $ep2;
    private float $n;
    private float $b;
    private float $etol2;

    /** @var list<float> */
    private array $a3;

    /** @var list<float> */
    private array $c3;

    public function __construct(Ellipsoid $ellipsoid)
    {
        $this->a = $ellipsoid->a;
        $this->f = $ellipsoid->f;
        $this->f1 = 1.0 - $this->f;
        $this->e2 = $ellipsoid->e2;
        $this->ep2 = $this->e2 / ($this->f1 * $this->f1);
        $this->n = $this->f / (2.0 - $this->f);
        $this->b = $this->a * $this->f1;
        $this->etol2 = 0.1 * self::TOL2 / sqrt(max(0.001, abs($this->f)) * min(1.0, 1.0 - $this->f / 2.0) / 2.0);
        $n = $this->n;
        $this->a3 = [
            1.0, ($n - 1.0) / 2.0, (($n * 3.0 - 1.0) * $n - 2.0) / 8.0, (($n * -1.0 - 3.0) * $n - 1.0) / 16.0,
            ($n * -2.0 - 3.0) / 64.0, -3.0 / 128.0,
        ];
        $this->c3 = [
            (1.0 - $n) / 4.0, (1.0 - $n * $n) / 8.0, ((3.0 - $n) * $n + 3.0) / 64.0, (2.0 * $n + 5.0) / 128.0, 3.0 / 128.0,
            (($n - 3.0) * $n + 2.0) / 32.0, ((-3.0 * $n - 2.0) * $n + 3.0) / 64.0, ($n + 3.0) / 128.0, 5.0 / 256.0,
            ((5.0 * $n - 9.0) * $n + 5.0) / 192.0, (9.0 - 10.0 * $n) / 384.0, 7.0 / 512.0,
            (7.0 - 14.0 * $n) / 512.0, 7.0 / 512.0,
            21.0 / 2560.0,
        ];
    }

    /**
     * @return array{
     *     distance: float, azimuth1: float, azimuth2: float, arc: float,
     * } metres, degrees (forward azimuth at either end), degrees of arc
     */
    public function inverse(float $lat1, float $lon1, float $lat2, float $lon2): array
    {
        self::checkLatitude($lat1);
        self::checkLatitude($lat2);
        $lon12 = $lon2 - $lon1;
        $lon12 -= 360.0 * round($lon12 / 360.0);
        $lonsign = $lon12 < 0.0 || (0.0 === $lon12 && $lon2 < $lon1) ? -1.0 : 1.0;
        $lon12 *= $lonsign;
        $lam12 = deg2rad($lon12);
        [$slam12, $clam12] = self::sincosd($lon12);
        $swapp = abs($lat1) < abs($lat2) ? -1.0 : 1.0;
        if ($swapp < 0.0) {
            $lonsign *= -1.0;
            [$lat1, $lat2] = [$lat2, $lat1];
        }
        $latsign = $lat1 < 0.0 ? 1.0 : -1.0;
        $lat1 *= $latsign;
        $lat2 *= $latsign;
        [$sbet1, $cbet1] = self::sincosd($lat1);
        [$sbet1, $cbet1] = self::norm($sbet1 * $this->f1, $cbet1);
        $cbet1 = max(self::TINY, $cbet1);
        [$sbet2, $cbet2] = self::sincosd($lat2);
        [$sbet2, $cbet2] = self::norm($sbet2 * $this->f1, $cbet2);
        $cbet2 = max(self::TINY, $cbet2);
        if ($cbet1 < -$sbet1) {
            if ($cbet2 === $cbet1) {
                $sbet2 = $sbet2 < 0.0 ? $sbet1 : -$sbet1;
            }
        } elseif (abs($sbet2) === -$sbet1) {
            $cbet2 = $cbet1;
        }
        $dn1 = sqrt(1.0 + $this->ep2 * $sbet1 * $sbet1);
        $dn2 = sqrt(1.0 + $this->ep2 * $sbet2 * $sbet2);
        $s12x = $a12 = 0.0;
        $salp1 = $calp1 = $salp2 = $calp2 = 0.0;
        $sig12 = -1.0;
        $meridian = -90.0 === $lat1 || 0.0 === $slam12;
        if ($meridian) {
            $calp1 = $clam12;
            $salp1 = $slam12;
            $calp2 = 1.0;
            $salp2 = 0.0;
            $ssig1 = $sbet1;
            $csig1 = $calp1 * $cbet1;
            $ssig2 = $sbet2;
            $csig2 = $calp2 * $cbet2;
            $sig12 = atan2(max(0.0, $csig1 * $ssig2 - $ssig1 * $csig2), $csig1 * $csig2 + $ssig1 * $ssig2);
            [$s12x, $m12x] = $this->lengths($this->n, $sig12, $ssig1, $csig1, $dn1, $ssig2, $csig2, $dn2);
            if ($sig12 < 1.0 || $m12x >= 0.0) {
                if ($sig12 < 3.0 * self::TINY || ($sig12 < self::EPSILON && ($s12x < 0.0 || $m12x < 0.0))) {
                    $sig12 = $s12x = 0.0;
                }
                $s12x *= $this->b;
                $a12 = rad2deg($sig12);
            } else {
                $meridian = false;
            }
        }
        if (!$meridian && 0.0 === $sbet1 && ($this->f <= 0.0 || 180.0 - $lon12 >= $this->f * 180.0)) {
            // Along the equator.
            $calp1 = $calp2 = 0.0;
            $salp1 = $salp2 = 1.0;
            $s12x = $this->a * $lam12;
            $sig12 = $lam12 / $this->f1;
            $a12 = $lon12 / $this->f1;
        } elseif (!$meridian) {
            $one = [$sbet1, $cbet1, $dn1];
            $two = [$sbet2, $cbet2, $dn2];
            [$sig12, $salp1, $calp1, $salp2, $calp2, $dnm] = $this->start($one, $two, $lam12, $slam12, $clam12);
            if ($sig12 >= 0.0) {
                $s12x = $sig12 * $this->b * $dnm;
                $a12 = rad2deg($sig12);
            } else {
                [$s12x, $a12, $salp1, $calp1, $salp2, $calp2] = $this->iterate($one, $two, $slam12, $clam12, $salp1, $calp1);
            }
        }
        if ($swapp < 0.0) {
            [$salp1, $salp2] = [$salp2, $salp1];
            [$calp1, $calp2] = [$calp2, $calp1];
        }
        $salp1 *= $swapp * $lonsign;
        $calp1 *= $swapp * $latsign;
        $salp2 *= $swapp * $lonsign;
        $calp2 *= $swapp * $latsign;

        return [
            'distance' => abs($s12x), 'azimuth1' => rad2deg(atan2($salp1, $calp1)),
            'azimuth2' => rad2deg(atan2($salp2, $calp2)), 'arc' => $a12,
        ];
    }

    /**
     * @return array{lat: float, lon: float, azimuth: float} degrees
     */
    public function direct(float $lat1, float $lon1, float $azimuth, float $distance): array
    {
        self::checkLatitude($lat1);
        [$salp1, $calp1] = self::sincosd($azimuth - 360.0 * round($azimuth / 360.0));
        [$sbet1, $cbet1] = self::sincosd($lat1);
        [$sbet1, $cbet1] = self::norm($sbet1 * $this->f1, $cbet1);
        $cbet1 = max(self::TINY, $cbet1);
        $salp0 = $salp1 * $cbet1;
        $calp0 = hypot($calp1, $salp1 * $sbet1);
        $ssig1 = $sbet1;
        $somg1 = $salp0 * $sbet1;
        $csig1 = $comg1 = 0.0 !== $sbet1 || 0.0 !== $calp1 ? $cbet1 * $calp1 : 1.0;
        [$ssig1, $csig1] = self::norm($ssig1, $csig1);
        $k2 = $calp0 * $calp0 * $this->ep2;
        $eps = $k2 / (2.0 * (1.0 + sqrt(1.0 + $k2)) + $k2);
        $a1m1 = self::a1m1($eps);
        $c1 = self::c1($eps);
        $b11 = self::sineSeries($ssig1, $csig1, $c1, 6);
        $s = sin($b11);
        $c = cos($b11);
        $stau1 = $ssig1 * $c + $csig1 * $s;
        $ctau1 = $csig1 * $c - $ssig1 * $s;
        $c1p = self::c1p($eps);
        $c3 = $this->c3f($eps);
        $a3c = -$this->f * $salp0 * $this->a3f($eps);
        $b31 = self::sineSeries($ssig1, $csig1, $c3, 5);
        $tau12 = $distance / ($this->b * (1.0 + $a1m1));
        $s = sin($tau12);
        $c = cos($tau12);
        $b12 = -self::sineSeries($stau1 * $c + $ctau1 * $s, $ctau1 * $c - $stau1 * $s, $c1p, 6);
        $sig12 = $tau12 - ($b12 - $b11);
        $ssig12 = sin($sig12);
        $csig12 = cos($sig12);
        $ssig2 = $ssig1 * $csig12 + $csig1 * $ssig12;
        $csig2 = $csig1 * $csig12 - $ssig1 * $ssig12;
        $sbet2 = $calp0 * $ssig2;
        $cbet2 = hypot($salp0, $calp0 * $csig2);
        if (0.0 === $cbet2) {
            $cbet2 = $csig2 = self::TINY;
        }
        $salp2 = $salp0;
        $calp2 = $calp0 * $csig2;
        $somg2 = $salp0 * $ssig2;
        $comg2 = $csig2;
        $omg12 = atan2($somg2 * $comg1 - $comg2 * $somg1, $comg2 * $comg1 + $somg2 * $somg1);
        $lam12 = $omg12 + $a3c * ($sig12 + (self::sineSeries($ssig2, $csig2, $c3, 5) - $b31));
        $lon2 = $lon1 + rad2deg($lam12);

        return [
            'lat' => rad2deg(atan2($sbet2, $this->f1 * $cbet2)), 'lon' => $lon2 - 360.0 * round($lon2 / 360.0),
            'azimuth' => rad2deg(atan2($salp2, $calp2)),
        ];
    }

    /**
     * Newton's method on the longitude, with bisection behind it.
     *
     * @param array{float, float, float} $one sine and cosine of the reduced latitude, and dn = sqrt(1 + e'^2 sin^2)
     * @param array{float, float, float} $two
     *
     * @return array{float, float, float, float, float, float} distance, arc, sine and cosine of both azimuths
     */
    private function iterate(array $one, array $two, float $slam12, float $clam12, float $salp1, float $calp1): array
    {
        $dn1 = $one[2];
        $dn2 = $two[2];
        $salp1a = self::TINY;
        $calp1a = 1.0;
        $salp1b = self::TINY;
        $calp1b = -1.0;
        $tripn = $tripb = false;
        for ($iteration = 0;; ++$iteration) {
            [$v, $salp2, $calp2, $sig12, $ssig1, $csig1, $ssig2, $csig2, $eps, $dv] = $this->lambda12(
                $one, $two, $salp1, $calp1, $slam12, $clam12, $iteration < 20,
            );
            if ($tripb || abs($v) < ($tripn ? 8.0 : 1.0) * self::EPSILON || self::MOST === $iteration) {
                break;
            }
            if ($v > 0.0 && ($iteration > 20 || $calp1 / $salp1 > $calp1b / $salp1b)) {
                $salp1b = $salp1;
                $calp1b = $calp1;
            } elseif ($v < 0.0 && ($iteration > 20 || $calp1 / $salp1 < $calp1a / $salp1a)) {
                $salp1a = $salp1;
                $calp1a = $calp1;
            }
            if ($iteration < 20 && $dv > 0.0) {
                $dalp1 = -$v / $dv;
                if (abs($dalp1) < \M_PI) {
                    $sdalp1 = sin($dalp1);
                    $cdalp1 = cos($dalp1);
                    $nsalp1 = $salp1 * $cdalp1 + $calp1 * $sdalp1;
                    if ($nsalp1 > 0.0) {
                        $calp1 = $calp1 * $cdalp1 - $salp1 * $sdalp1;
                        $salp1 = $nsalp1;
                        [$salp1, $calp1] = self::norm($salp1, $calp1);
                        $tripn = abs($v) <= 16.0 * self::EPSILON;
                        continue;
                    }
                }
            }
            $salp1 = ($salp1a + $salp1b) / 2.0;
            $calp1 = ($calp1a + $calp1b) / 2.0;
            [$salp1, $calp1] = self::norm($salp1, $calp1);
            $tripn = false;
            $tripb = abs($salp1a - $salp1) + ($calp1a - $calp1) < self::TOL1 * 0.01
                || abs($salp1 - $salp1b) + ($calp1 - $calp1b) < self::TOL1 * 0.01;
        }
        [$s12b] = $this->lengths($eps, $sig12, $ssig1, $csig1, $dn1, $ssig2, $csig2, $dn2);

        return [$s12b * $this->b, rad2deg($sig12), $salp1, $calp1, $salp2, $calp2];
    }

    /**
     * @param array{float, float, float} $one sine and cosine of the reduced latitude, dn
     * @param array{float, float, float} $two
     *
     * @return array{float, float, float, float, float, float} arc (negative: iterate), sine and cosine of both azimuths, mean dn
     */
    private function start(array $one, array $two, float $lam12, float $slam12, float $clam12): array
    {
        [$sbet1, $cbet1, $dn1] = $one;
        [$sbet2, $cbet2, $dn2] = $two;
        $sig12 = -1.0;
        $salp2 = $calp2 = $dnm = 0.0;
        $sbet12 = $sbet2 * $cbet1 - $cbet2 * $sbet1;
        $cbet12 = $cbet2 * $cbet1 + $sbet2 * $sbet1;
        $sbet12a = $sbet2 * $cbet1 + $cbet2 * $sbet1;
        $short = $cbet12 >= 0.0 && $sbet12 < 0.5 && $cbet2 * $lam12 < 0.5;
        if ($short) {
            $sbetm2 = ($sbet1 + $sbet2) ** 2;
            $sbetm2 /= $sbetm2 + ($cbet1 + $cbet2) ** 2;
            $dnm = sqrt(1.0 + $this->ep2 * $sbetm2);
            $omg12 = $lam12 / ($this->f1 * $dnm);
            $somg12 = sin($omg12);
            $comg12 = cos($omg12);
        } else {
            $somg12 = $slam12;
            $comg12 = $clam12;
        }
        $salp1 = $cbet2 * $somg12;
        $calp1 = $comg12 >= 0.0
            ? $sbet12 + $cbet2 * $sbet1 * $somg12 ** 2 / (1.0 + $comg12)
            : $sbet12a - $cbet2 * $sbet1 * $somg12 ** 2 / (1.0 - $comg12);
        $ssig12 = hypot($salp1, $calp1);
        $csig12 = $sbet1 * $sbet2 + $cbet1 * $cbet2 * $comg12;
        if ($short && $ssig12 < $this->etol2) {
            $salp2 = $cbet1 * $somg12;
            $calp2 = $sbet12 - $cbet1 * $sbet2 * ($comg12 >= 0.0 ? $somg12 ** 2 / (1.0 + $comg12) : 1.0 - $comg12);
            [$salp2, $calp2] = self::norm($salp2, $calp2);
            $sig12 = atan2($ssig12, $csig12);
        } elseif (abs($this->n) > 0.1 || $csig12 >= 0.0 || $ssig12 >= 6.0 * abs($this->n) * \M_PI * $cbet1 * $cbet1) {
            // The spherical start is good enough.
        } else {
            $lam12x = atan2(-$slam12, -$clam12);
            $k2 = $sbet1 * $sbet1 * $this->ep2;
            $eps = $k2 / (2.0 * (1.0 + sqrt(1.0 + $k2)) + $k2);
            $lamscale = $this->f * $cbet1 * $this->a3f($eps) * \M_PI;
            $betscale = $lamscale * $cbet1;
            $x = $lam12x / $lamscale;
            $y = $sbet12a / $betscale;
            if ($y > -self::TOL1 && $x > -1.0 - self::XTHRESH) {
                $salp1 = min(1.0, -$x);
                $calp1 = -sqrt(1.0 - $salp1 * $salp1);
            } else {
                $k = self::astroid($x, $y);
                $omg12a = $lamscale * (-$x * $k / (1.0 + $k));
                $somg12 = sin($omg12a);
                $comg12 = -cos($omg12a);
                $salp1 = $cbet2 * $somg12;
                $calp1 = $sbet12a - $cbet2 * $sbet1 * $somg12 ** 2 / (1.0 - $comg12);
            }
        }
        if ($salp1 > 0.0) {
            [$salp1, $calp1] = self::norm($salp1, $calp1);
        } else {
            $salp1 = 1.0;
            $calp1 = 0.0;
        }

        return [$sig12, $salp1, $calp1, $salp2, $calp2, $dnm];
    }

    /**
     * Longitude difference of the geodesic that leaves with the given azimuth, less the one wanted, and its derivative.
     *
     * @param array{float, float, float} $one sine and cosine of the reduced latitude, dn
     * @param array{float, float, float} $two
     *
     * @return array{float, float, float, float, float, float, float, float, float, float}
     */
    private function lambda12(
        array $one,
        array $two,
        float $salp1,
        float $calp1,
        float $slam120,
        float $clam120,
        bool $derivative,
    ): array {
        [$sbet1, $cbet1, $dn1] = $one;
        [$sbet2, $cbet2, $dn2] = $two;
        if (0.0 === $sbet1 && 0.0 === $calp1) {
            $calp1 = -self::TINY;
        }
        $salp0 = $salp1 * $cbet1;
        $calp0 = hypot($calp1, $salp1 * $sbet1);
        $ssig1 = $sbet1;
        $somg1 = $salp0 * $sbet1;
        $csig1 = $comg1 = $calp1 * $cbet1;
        [$ssig1, $csig1] = self::norm($ssig1, $csig1);
        $salp2 = $cbet2 !== $cbet1 ? $salp0 / $cbet2 : $salp1;
        $calp2 = $cbet2 !== $cbet1 || abs($sbet2) !== -$sbet1
            ? sqrt(
                ($calp1 * $cbet1) ** 2 + ($cbet1 < -$sbet1 ? ($cbet2 - $cbet1) * ($cbet1 + $cbet2) : ($sbet1 - $sbet2) * ($sbet1 + $sbet2)),
            ) / $cbet2
            : abs($calp1);
        $ssig2 = $sbet2;
        $somg2 = $salp0 * $sbet2;
        $csig2 = $comg2 = $calp2 * $cbet2;
        [$ssig2, $csig2] = self::norm($ssig2, $csig2);
        $sig12 = atan2(max(0.0, $csig1 * $ssig2 - $ssig1 * $csig2), $csig1 * $csig2 + $ssig1 * $ssig2);
        $somg12 = max(0.0, $comg1 * $somg2 - $somg1 * $comg2);
        $comg12 = $comg1 * $comg2 + $somg1 * $somg2;
        $eta = atan2($somg12 * $clam120 - $comg12 * $slam120, $comg12 * $clam120 + $somg12 * $slam120);
        $k2 = $calp0 * $calp0 * $this->ep2;
        $eps = $k2 / (2.0 * (1.0 + sqrt(1.0 + $k2)) + $k2);
        $c3 = $this->c3f($eps);
        $b312 = self::sineSeries($ssig2, $csig2, $c3, 5) - self::sineSeries($ssig1, $csig1, $c3, 5);
        $lam12 = $eta - $this->f * $this->a3f($eps) * $salp0 * ($sig12 + $b312);
        $dlam12 = 0.0;
        if ($derivative) {
            if (0.0 === $calp2) {
                $dlam12 = -2.0 * $this->f1 * $dn1 / $sbet1;
            } else {
                [, $m12b] = $this->lengths($eps, $sig12, $ssig1, $csig1, $dn1, $ssig2, $csig2, $dn2);
                $dlam12 = $m12b * $this->f1 / ($calp2 * $cbet2);
            }
        }

        return [$lam12, $salp2, $calp2, $sig12, $ssig1, $csig1, $ssig2, $csig2, $eps, $dlam12];
    }

    /** @return array{float, float} distance and reduced length over the semi-minor axis */
    private function lengths(
        float $eps,
        float $sig12,
        float $ssig1,
        float $csig1,
        float $dn1,
        float $ssig2,
        float $csig2,
        float $dn2,
    ): array {
        $a1 = self::a1m1($eps);
        $c1 = self::c1($eps);
        $a2 = self::a2m1($eps);
        $c2 = self::c2($eps);
        $m0 = $a1 - $a2;
        $b1 = self::sineSeries($ssig2, $csig2, $c1, 6) - self::sineSeries($ssig1, $csig1, $c1, 6);
        $s12b = (1.0 + $a1) * ($sig12 + $b1);
        $b2 = self::sineSeries($ssig2, $csig2, $c2, 6) - self::sineSeries($ssig1, $csig1, $c2, 6);
        $j12 = $m0 * $sig12 + ((1.0 + $a1) * $b1 - (1.0 + $a2) * $b2);

        return [$s12b, $dn2 * ($csig1 * $ssig2) - $dn1 * ($ssig1 * $csig2) - $csig1 * $csig2 * $j12];
    }

    /** Positive root of k^4 + 2 k^3 - (x^2 + y^2 - 1) k^2 - 2 y^2 k - y^2 = 0 (Karney 2013, section 6). */
    private static function astroid(float $x, float $y): float
    {
        $p = $x * $x;
        $q = $y * $y;
        $r = ($p + $q - 1.0) / 6.0;
        if (0.0 === $q && $r <= 0.0) {
            return 0.0;
        }
        $s = $p * $q / 4.0;
        $r2 = $r * $r;
        $r3 = $r * $r2;
        $disc = $s * ($s + 2.0 * $r3);
        $u = $r;
        if ($disc >= 0.0) {
            $t3 = $s + $r3;
            $t3 += $t3 < 0.0 ? -sqrt($disc) : sqrt($disc);
            $t = ($t3 < 0.0 ? -1.0 : 1.0) * abs($t3) ** (1.0 / 3.0);
            // No division at t = 0, where r vanishes as well.
            $u += $t + (abs($t) > 0.0 ? $r2 / $t : 0.0);
        } else {
            $ang = atan2(sqrt(-$disc), -($s + $r3));
            $u += 2.0 * $r * cos($ang / 3.0);
        }
        $v = sqrt($u * $u + $q);
        $uv = $u < 0.0 ? $q / ($v - $u) : $u + $v;
        $w = ($uv - $q) / (2.0 * $v);

        return $uv / (sqrt($uv + $w * $w) + $w);
    }

    /**
     * Sum of c[k] sin(2 k x), k from 1, by Clenshaw.
     *
     * @param list<float> $c c[0] is the coefficient of sin 2x
     */
    private static function sineSeries(float $sin, float $cos, array $c, int $n): float
    {
        $ar = 2.0 * ($cos - $sin) * ($cos + $sin);
        $y0 = $y1 = 0.0;
        for ($k = $n - 1; $k >= 0; --$k) {
            $y = $ar * $y0 - $y1 + $c[$k];
            $y1 = $y0;
            $y0 = $y;
        }

        return 2.0 * $sin * $cos * $y0;
    }

    private static function a1m1(float $eps): float
    {
        $e2 = $eps * $eps;

        return ($e2 * ($e2 * ($e2 + 4.0) + 64.0) / 256.0 + $eps) / (1.0 - $eps);
    }

    private static function a2m1(float $eps): float
    {
        $e2 = $eps * $eps;

        return ($e2 * ($e2 * (-11.0 * $e2 - 28.0) - 192.0) / 256.0 - $eps) / (1.0 + $eps);
    }

    /** @return list<float> */
    private static function c1(float $eps): array
    {
        $e2 = $eps * $eps;
        $d2 = $e2;
        $d3 = $d2 * $eps;
        $d4 = $d3 * $eps;

        return [
            $eps * ((6.0 - $e2) * $e2 - 16.0) / 32.0, $d2 * ((64.0 - 9.0 * $e2) * $e2 - 128.0) / 2048.0, $d3 * (9.0 * $e2 - 16.0) / 768.0,
            $d4 * (3.0 * $e2 - 5.0) / 512.0, -7.0 * $d4 * $eps / 1280.0, -7.0 * $d4 * $e2 / 2048.0,
        ];
    }

    /** @return list<float> */
    private static function c1p(float $eps): array
    {
        $e2 = $eps * $eps;
        $d3 = $e2 * $eps;
        $d4 = $e2 * $e2;

        return [
            $eps * ($e2 * (205.0 * $e2 - 432.0) + 768.0) / 1536.0,
            $e2 * ($e2 * (4005.0 * $e2 - 4736.0) + 3840.0) / 12288.0, $d3 * (116.0 - 225.0 * $e2) / 384.0,
            $d4 * (2695.0 - 7173.0 * $e2) / 7680.0, 3467.0 * $d4 * $eps / 7680.0, 38081.0 * $d4 * $e2 / 61440.0,
        ];
    }

    /** @return list<float> */
    private static function c2(float $eps): array
    {
        $e2 = $eps * $eps;
        $d3 = $e2 * $eps;
        $d4 = $e2 * $e2;

        return [
            $eps * ($e2 * ($e2 + 2.0) + 16.0) / 32.0, $e2 * ($e2 * (35.0 * $e2 + 64.0) + 384.0) / 2048.0, $d3 * (15.0 * $e2 + 80.0) / 768.0,
            $d4 * (7.0 * $e2 + 35.0) / 512.0, 63.0 * $d4 * $eps / 1280.0, 77.0 * $d4 * $e2 / 2048.0,
        ];
    }

    private function a3f(float $eps): float
    {
        [$a0, $a1, $a2, $a3, $a4, $a5] = $this->a3;

        return ((((($a5 * $eps) + $a4) * $eps + $a3) * $eps + $a2) * $eps + $a1) * $eps + $a0;
    }

    /** @return list<float> */
    private function c3f(float $eps): array
    {
        $c = $this->c3;
        $e2 = $eps * $eps;
        $e3 = $e2 * $eps;
        $e4 = $e3 * $eps;

        return [
            $eps * ($c[0] + $eps * ($c[1] + $eps * ($c[2] + $eps * ($c[3] + $eps * $c[4])))),
            $e2 * ($c[5] + $eps * ($c[6] + $eps * ($c[7] + $eps * $c[8]))),
            $e3 * ($c[9] + $eps * ($c[10] + $eps * $c[11])),
            $e4 * ($c[12] + $eps * $c[13]),
            $e4 * $eps * $c[14],
        ];
    }

    /** @return array{float, float} */
    private static function norm(float $x, float $y): array
    {
        $r = hypot($x, $y);

        return [$x / $r, $y / $r];
    }

    /** @return array{float, float} sine and cosine of degrees, exact at the quarter turns */
    private static function sincosd(float $x): array
    {
        $q = (int) round($x / 90.0);
        $r = deg2rad($x - 90.0 * $q);
        $s = sin($r);
        $c = cos($r);

        return match ((($q % 4) + 4) % 4) {
            0 => [$s, $c],
            1 => [$c, 0.0 - $s],
            2 => [0.0 - $s, 0.0 - $c],
            default => [0.0 - $c, $s],
        };
    }

    private static function checkLatitude(float $lat): void
    {
        if (is_nan($lat) || abs($lat) > 90.0) {
            throw new \DomainException(\sprintf('latitude %s is not between -90 and 90 degrees', $lat));
        }
    }
}
