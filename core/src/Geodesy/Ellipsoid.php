<?php

declare(strict_types=1);

namespace Mensura\Geodesy;

/**
 * An ellipsoid of revolution. Angles in radians, lengths in metres, geocentric axes X (0 E), Y (90 E), Z (north).
 */
final readonly class Ellipsoid
{
    /** Flattening. */
    public float $f;

    /** First eccentricity squared. */
    public float $e2;

    public function __construct(public string $name, public float $a, public float $inverseFlattening)
    {
        if (!is_finite($a) || $a <= 0.0 || is_nan($inverseFlattening) || $inverseFlattening <= 1.0) {
            throw new \DomainException(
                'An ellipsoid needs a positive semi-major axis and an inverse flattening above 1 (infinite for a sphere).',
            );
        }
        $this->f = is_infinite($inverseFlattening) ? 0.0 : 1.0 / $inverseFlattening;
        $this->e2 = $this->f * (2.0 - $this->f);
    }

    /** GRS 1980 (Moritz 2000, Geodetic Reference System 1980). */
    public static function grs80(): self
    {
        return new self('GRS 1980', 6378137.0, 298.257222101);
    }

    /** WGS 84 (NGA.STND.0036, version 1.0.0). */
    public static function wgs84(): self
    {
        return new self('WGS 84', 6378137.0, 298.257223563);
    }

    /** Radius of curvature in the prime vertical. */
    public function primeVertical(float $lat): float
    {
        $s = sin($lat);

        return $this->a / sqrt(1.0 - $this->e2 * $s * $s);
    }

    /** Radius of curvature in the meridian. */
    public function meridian(float $lat): float
    {
        $s = sin($lat);
        $w = 1.0 - $this->e2 * $s * $s;

        return $this->a * (1.0 - $this->e2) / ($w * sqrt($w));
    }

    /** @return array{float, float, float} geocentric X, Y, Z */
    public function toCartesian(float $lat, float $lon, float $h): array
    {
        $n = $this->primeVertical($lat);
        $c = ($n + $h) * cos($lat);

        return [$c * cos($lon), $c * sin($lon), ($n * (1.0 - $this->e2) + $h) * sin($lat)];
    }

    /**
     * Iteration on the reduced latitude u (Bowring 1985, The accuracy of geodetic latitude and height equations, Survey
     * Review 28), its sine and cosine kept instead of u, converged to rounding.
     *
     * @return array{float, float, float} latitude, longitude, ellipsoidal height
     *
     * @throws \DomainException nearer to the centre than the ellipsoid's evolute reaches, where several normals meet
     */
    public function toGeodetic(float $x, float $y, float $z): array
    {
        $p = sqrt($x * $x + $y * $y);
        $a = $this->a;
        $f1 = 1.0 - $this->f;
        $b = $a * $f1;
        $reach = $this->e2 * $a; // of the evolute in the plane of the equator; along the axis it is reach / (1 - f)
        if ($p * $p + $z * $z <= 1.1 * $reach * $reach || is_nan($p + $z)) {
            throw new \DomainException(\sprintf(
                'X %.3f, Y %.3f, Z %.3f m lies at the centre of the earth, where there is no latitude',
                $x,
                $y,
                $z,
            ));
        }
        $second = $reach / $f1;
        $s = $z;
        $c = $p * $f1;
        $q = 1.0 / sqrt($s * $s + $c * $c);
        $s *= $q;
        $c *= $q;
        $up = 0.0;
        $out = 1.0;
        for ($i = 0; $i < 50; ++$i) {
            $up = $z + $second * $s * $s * $s;
            $out = $p - $reach * $c * $c * $c;
            $nextS = $f1 * $up;
            $q = 1.0 / sqrt($nextS * $nextS + $out * $out);
            $nextS *= $q;
            $change = $nextS * $c - $out * $q * $s; // the sine of the change of u
            $s = $nextS;
            $c = $out * $q;
            if ($change < 1e-15 && $change > -1e-15) {
                break;
            }
        }
        $lat = atan2($up, $out);
        $sin = sin($lat);
        $cos = cos($lat);
        $h = $p * $cos + $z * $sin - $this->a * sqrt(1.0 - $this->e2 * $sin * $sin);

        return [$lat, atan2($y, $x), $h];
    }
}
