<?php

declare(strict_types=1);

namespace Mensura\Geodesy;

/**
 * Conformal, authalic and rectifying latitudes of one ellipsoid. Angles in radians, lengths in metres.
 *
 * Conformal: Karney (2011) J. Geodesy 85, equations 7 to 9 and 19 to 21. Authalic: Snyder (1987), USGS
 * Professional Paper 1395, equations 3-11 and 3-12. Rectifying: series in the third flattening to the sixth
 * order (Helmert 1880 in the form of Deakin & Hunter), below a nanometre for terrestrial ellipsoids.
 */
final readonly class AuxiliaryLatitude
{
    public float $e;

    /** Metres of meridian per radian of rectifying latitude. */
    public float $rectifyingRadius;

    /** @var list<float> */
    private array $toRectifying;

    /** @var list<float> */
    private array $fromRectifying;

    /** Authalic q at the pole. */
    public float $qPole;

    public function __construct(public Ellipsoid $ellipsoid)
    {
        $this->e = sqrt($ellipsoid->e2);
        $n = $ellipsoid->f / (2.0 - $ellipsoid->f);
        $n2 = $n * $n;
        $this->rectifyingRadius = $ellipsoid->a / (1.0 + $n) * (1.0 + $n2 * (1.0 / 4.0 + $n2 * (1.0 / 64.0 + $n2 / 256.0)));
        $this->toRectifying = [
            $n * (-3 / 2 + $n2 * (9 / 16 - $n2 * 3 / 32)),
            $n2 * (15 / 16 + $n2 * (-15 / 32 + $n2 * 135 / 2048)),
            $n2 * $n * (-35 / 48 + $n2 * 105 / 256),
            $n2 * $n2 * (315 / 512 - $n2 * 189 / 512),
            $n2 * $n2 * $n * -693 / 1280,
            $n2 * $n2 * $n2 * 1001 / 2048,
        ];
        $this->fromRectifying = [
            $n * (3 / 2 + $n2 * (-27 / 32 + $n2 * 269 / 512)),
            $n2 * (21 / 16 + $n2 * (-55 / 32 + $n2 * 6759 / 4096)),
            $n2 * $n * (151 / 96 - $n2 * 417 / 128),
            $n2 * $n2 * (1097 / 512 - $n2 * 15543 / 2560),
            $n2 * $n2 * $n * 8011 / 2560,
            $n2 * $n2 * $n2 * 293393 / 61440,
        ];
        $this->qPole = $this->authalicQ(1.0);
    }

    /** Tangent of the conformal latitude from the tangent of the geodetic latitude. */
    public function conformalTangent(float $tan): float
    {
        $root = sqrt(1.0 + $tan * $tan);
        $sigma = sinh($this->e * atanh($this->e * $tan / $root));

        return $tan * sqrt(1.0 + $sigma * $sigma) - $sigma * $root;
    }

    /** Geodetic latitude from the tangent of the conformal latitude (Newton, converged to rounding). */
    public function fromConformalTangent(float $conformal): float
    {
        $e2 = $this->ellipsoid->e2;
        $tan = $conformal / sqrt(1.0 - $e2);
        if (abs($tan) > 1e12) {
            return $tan > 0.0 ? \M_PI_2 : -\M_PI_2;
        }
        for ($i = 0; $i < 8; ++$i) {
            $t = $this->conformalTangent($tan);
            $step = ($conformal - $t) / sqrt(1.0 + $t * $t) * (1.0 + (1.0 - $e2) * $tan * $tan) / ((1.0 - $e2) * sqrt(1.0 + $tan * $tan));
            $tan += $step;
            if (abs($step) <= 1e-16 * max(1.0, abs($tan))) {
                break;
            }
        }

        return atan($tan);
    }

    /** Isometric latitude, asinh of the conformal tangent; infinite at the poles. */
    public function isometric(float $lat): float
    {
        $s = sin($lat);

        return asinh(tan($lat)) - $this->e * atanh($this->e * $s);
    }

    public function fromIsometric(float $psi): float
    {
        return $this->fromConformalTangent(sinh($psi));
    }

    /** Snyder 3-12 from the sine of the latitude; the area between equator and parallel is pi a^2 q. */
    public function authalicQ(float $sin): float
    {
        if ($this->e < 1e-10) {
            return 2.0 * $sin;
        }
        $e2 = $this->ellipsoid->e2;

        return (1.0 - $e2) * ($sin / (1.0 - $e2 * $sin * $sin) + atanh($this->e * $sin) / $this->e);
    }

    /** Latitude of a value of q (Newton on the sine; Snyder 3-16). */
    public function fromAuthalicQ(float $q): float
    {
        $ratio = $q / $this->qPole;
        if (abs($ratio) >= 1.0) {
            return $ratio > 0.0 ? \M_PI_2 : -\M_PI_2;
        }
        $e2 = $this->ellipsoid->e2;
        $sin = $ratio;
        for ($i = 0; $i < 12; ++$i) {
            $w = 1.0 - $e2 * $sin * $sin;
            $step = ($q - $this->authalicQ($sin)) * $w * $w / (2.0 * (1.0 - $e2));
            $sin = max(-1.0, min(1.0, $sin + $step));
            if (abs($step) < 1e-16) {
                break;
            }
        }

        return asin($sin);
    }

    /** Metres along the meridian from the equator. */
    public function meridianDistance(float $lat): float
    {
        return $this->rectifyingRadius * ($lat + self::sineSeries($this->toRectifying, $lat));
    }

    public function fromMeridianDistance(float $metres): float
    {
        $mu = $metres / $this->rectifyingRadius;

        return $mu + self::sineSeries($this->fromRectifying, $mu);
    }

    /**
     * Sum of c[k] sin(2 (k + 1) x) by Clenshaw.
     *
     * @param list<float> $c
     */
    private static function sineSeries(array $c, float $x): float
    {
        $two = 2.0 * cos(2.0 * $x);
        $u0 = $c[5];
        $u1 = $two * $u0 + $c[4];
        $u0 = $two * $u1 - $u0 + $c[3];
        $u1 = $two * $u0 - $u1 + $c[2];
        $u0 = $two * $u1 - $u0 + $c[1];
        $u1 = $two * $u0 - $u1 + $c[0];

        return $u1 * sin(2.0 * $x);
    }
}
