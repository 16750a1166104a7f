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
            throw new \DomainException('An ellipsoid needs a positive semi-major axis and an inverse flattening above 1 (infinite for a sphere).');
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
     * Newton iteration on the reduced latitude (Bowring 1985), converged to rounding for heights above -5000 km.
     *
     * @return array{float, float, float} latitude, longitude, ellipsoidal height
     */
    public function toGeodetic(float $x, float $y, float $z): array
    {
        $p = hypot($x, $y);
        $b = $this->a * (1.0 - $this->f);
        $second = $this->e2 / (1.0 - $this->e2);
        $u = atan2($z * $this->a, $p * $b);
        $lat = 0.0;
        for ($i = 0; $i < 5; ++$i) {
            $lat = atan2($z + $second * $b * sin($u) ** 3, $p - $this->e2 * $this->a * cos($u) ** 3);
            $next = atan2((1.0 - $this->f) * sin($lat), cos($lat));
            if (abs($next - $u) < 1e-16) {
                break;
            }
            $u = $next;
        }
        $sin = sin($lat);
        $cos = cos($lat);
        $h = $p * $cos + $z * $sin - $this->a * sqrt(1.0 - $this->e2 * $sin * $sin);

        return [$lat, atan2($y, $x), $h];
    }
}
