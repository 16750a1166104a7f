<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Colombia urban (EPSG method 1052; Guidance Note 7-2, section 3.6.5): a plane at a town's own height. The inverse
 * closes on the forward formula.
 */
final class ColombiaUrban implements Projection
{
    private const NAME = 'urban plane';

    private readonly float $a;
    private readonly float $b;
    private readonly float $originSpeed;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        private readonly float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
        float $planeHeight,
    ) {
        $v = $ellipsoid->primeVertical($originLat);
        $this->originSpeed = $v;
        $this->a = 1.0 + $planeHeight / $v;
        $this->b = tan($originLat) / (2.0 * $ellipsoid->meridian($originLat) * $v);
    }

    public function forward(float $lat, float $lon): array
    {
        $d = Turn::difference($lon, $this->originLon);
        if (is_nan($lat) || abs($lat - $this->originLat) > 0.1 || abs($d) > 0.1) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $v = $this->ellipsoid->primeVertical($lat);
        $mid = $this->ellipsoid->meridian(0.5 * ($lat + $this->originLat));
        $height = ($this->a - 1.0) * $this->originSpeed;
        $g = 1.0 + $height / $mid;
        $x = $d * $v * cos($lat);

        return [
            $this->falseEasting + $this->a * $x,
            $this->falseNorthing + $g * $this->ellipsoid->meridian($this->originLat) * (($lat - $this->originLat) + $this->b * $x * $x),
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $lat = $this->originLat + ($northing - $this->falseNorthing) / $this->ellipsoid->meridian($this->originLat);
        $delta = ($easting - $this->falseEasting) / ($this->originSpeed * cos($this->originLat));
        if (is_nan($lat + $delta) || abs($lat - $this->originLat) > 0.1 || abs($delta) > 0.1) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }

        return NewtonInverse::solve($this, $easting, $northing, $lat, $this->originLon + $delta, self::NAME);
    }
}
