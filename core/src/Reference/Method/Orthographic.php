<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/**
 * Ellipsoidal orthographic (EPSG method 9840; Guidance Note 7-2, section 3.3.5): the ellipsoid's surface seen in the
 * topocentric horizon of the origin.
 */
final class Orthographic implements Projection
{
    private const NAME = 'orthographic';

    private readonly float $primeVertical;
    private readonly float $sin;
    private readonly float $cos;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        private readonly float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->primeVertical = $ellipsoid->primeVertical($originLat);
        $this->sin = sin($originLat);
        $this->cos = cos($originLat);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $v = $this->ellipsoid->primeVertical($lat);
        $d = Turn::difference($lon, $this->originLon);
        $sin = sin($lat);
        $cos = cos($lat);
        if ($sin * $this->sin + $cos * $this->cos * cos($d) < 0.0) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }

        return [
            $this->falseEasting + $v * $cos * sin($d),
            $this->falseNorthing + $v * ($sin * $this->cos - $cos * $this->sin * cos($d))
                + $this->ellipsoid->e2 * ($this->primeVertical * $this->sin - $v * $sin) * $this->cos,
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $easting - $this->falseEasting;
        $y = $northing - $this->falseNorthing;
        $r = sqrt($x * $x + $y * $y);
        if (is_nan($r) || $r > 0.995 * $this->ellipsoid->a) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        // Starting place on the sphere; Newton on the ellipsoid.
        $c = asin($r / $this->ellipsoid->a);
        $lat = 0.0 === $r ? $this->originLat : asin(cos($c) * $this->sin + $y * sin($c) * $this->cos / $r);
        $delta = 0.0 === $r ? 0.0 : atan2($x * sin($c), $r * $this->cos * cos($c) - $y * $this->sin * sin($c));

        return NewtonInverse::solve($this, $easting, $northing, $lat, $this->originLon + $delta, self::NAME);
    }
}
