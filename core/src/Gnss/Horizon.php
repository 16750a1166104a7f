<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Geodesy\Ellipsoid;

/** The local horizon of a place on the earth: east, north, up of the WGS 84 ellipsoid. */
final readonly class Horizon
{
    /** @param array{float, float, float, float, float, float, float, float, float} $axes rows east, north, up */
    private function __construct(public float $latitude, public float $longitude, public float $height, public array $axes)
    {
    }

    /** @param array{float, float, float} $position geocentric, metres */
    public static function of(array $position): self
    {
        [$lat, $lon, $h] = Ellipsoid::wgs84()->toGeodetic(...$position);
        $sl = sin($lat);
        $cl = cos($lat);
        $so = sin($lon);
        $co = cos($lon);

        return new self($lat, $lon, $h, [-$so, $co, 0.0, -$sl * $co, -$sl * $so, $cl, $cl * $co, $cl * $so, $sl]);
    }

    /** @return array{float, float} azimuth and elevation of a direction, radians */
    public function look(float $dx, float $dy, float $dz): array
    {
        [$e, $n, $u] = $this->components($dx, $dy, $dz);

        return [atan2($e, $n), atan2($u, hypot($e, $n))];
    }

    /** @return array{float, float, float} east, north and up of a geocentric difference */
    public function components(float $dx, float $dy, float $dz): array
    {
        $a = $this->axes;

        return [
            $a[0] * $dx + $a[1] * $dy + $a[2] * $dz, $a[3] * $dx + $a[4] * $dy + $a[5] * $dz, $a[6] * $dx + $a[7] * $dy + $a[8] * $dz,
        ];
    }

    /**
     * A position shifted by east, north and up.
     *
     * @param array{float, float, float} $position
     *
     * @return array{float, float, float}
     */
    public function shifted(array $position, float $east, float $north, float $up): array
    {
        $a = $this->axes;

        return [
            $position[0] + $a[0] * $east + $a[3] * $north + $a[6] * $up, $position[1] + $a[1] * $east + $a[4] * $north + $a[7] * $up,
            $position[2] + $a[2] * $east + $a[5] * $north + $a[8] * $up,
        ];
    }

    /**
     * A covariance times a factor, and with it what remains in plan and up however good that is; metres.
     *
     * @param list<list<float>> $q geocentric
     *
     * @return list<list<float>>
     */
    public function widened(array $q, float $factor, float $plan, float $up): array
    {
        $a = $this->axes;
        $out = [];
        for ($i = 0; $i < 3; ++$i) {
            $row = [];
            for ($j = 0; $j < 3; ++$j) {
                $row[] = $factor * $q[$i][$j] + ($a[$i] * $a[$j] + $a[3 + $i] * $a[3 + $j]) * $plan * $plan
                    + $a[6 + $i] * $a[6 + $j] * $up * $up;
            }
            $out[] = $row;
        }

        return $out;
    }

    /**
     * Straight from one place to another.
     *
     * @param array{float, float, float} $a geocentric, metres
     * @param array{float, float, float} $b
     */
    public static function distance(array $a, array $b): float
    {
        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }

    /**
     * A covariance in the axes of the horizon.
     *
     * @param list<list<float>> $q geocentric
     *
     * @return list<list<float>>
     */
    public function turned(array $q): array
    {
        $a = $this->axes;
        $out = [];
        for ($i = 0; $i < 3; ++$i) {
            $row = [];
            for ($j = 0; $j < 3; ++$j) {
                $sum = 0.0;
                for ($k = 0; $k < 3; ++$k) {
                    for ($l = 0; $l < 3; ++$l) {
                        $sum += $a[3 * $i + $k] * $q[$k][$l] * $a[3 * $j + $l];
                    }
                }
                $row[] = $sum;
            }
            $out[] = $row;
        }

        return $out;
    }
}
