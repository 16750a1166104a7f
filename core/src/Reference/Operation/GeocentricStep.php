<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Geodesy\Ellipsoid;

/** Geodetic to geocentric, a linear map, and back to geodetic on the other ellipsoid. */
final class GeocentricStep implements Step
{
    /** @var list<float> */
    private readonly array $m;

    /** @var array{float, float, float} */
    private readonly array $d;

    /**
     * @param array{0: list<float>, 1: array{float, float, float}} $map
     * @param bool                                                 $keepHeight two-dimensional use: the height goes through unchanged
     */
    public function __construct(
        private readonly Ellipsoid $from,
        private readonly Ellipsoid $to,
        array $map,
        private readonly bool $keepHeight,
    ) {
        [$this->m, $this->d] = $map;
    }

    public function apply(float $lat, float $lon, float $h): array
    {
        $s = sin($lat);
        $e2 = $this->from->e2;
        $v = $this->from->a / sqrt(1.0 - $e2 * $s * $s);
        $c = ($v + $h) * cos($lat);
        $x = $c * cos($lon);
        $y = $c * sin($lon);
        $z = ($v * (1.0 - $e2) + $h) * $s;
        [$a, $b, $c, $d, $e, $f, $g, $i, $j] = $this->m;
        [$dx, $dy, $dz] = $this->d;
        [$newLat, $newLon, $newH] = $this->to->toGeodetic(
            $a * $x + $b * $y + $c * $z + $dx, $d * $x + $e * $y + $f * $z + $dy, $g * $x + $i * $y + $j * $z + $dz,
        );

        return [$newLat, $newLon, $this->keepHeight ? $h : $newH];
    }
}
