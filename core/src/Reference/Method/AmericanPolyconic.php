<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** American polyconic (EPSG method 9818; Snyder 1987, equations 18-12 to 18-15), refused beyond 90 degrees from its meridian. */
final class AmericanPolyconic implements Projection
{
    private const NAME = 'polyconic';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $originDistance;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->originDistance = $this->latitude->meridianDistance($originLat);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $delta = Turn::difference($lon, $this->originLon);
        if (abs($delta) > \M_PI_2) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $sin = sin($lat);
        $l = $delta * $sin;
        $v = $this->ellipsoid->primeVertical($lat);
        // Both terms by the cardinal sine, which carries them through the equator.
        $sinc = abs($l) < 1e-9 ? 1.0 : sin($l) / $l;
        $half = abs($l) < 1e-9 ? 1.0 : sin($l / 2.0) / ($l / 2.0);

        return [
            $this->falseEasting + $v * cos($lat) * $delta * $sinc,
            $this->falseNorthing + $this->latitude->meridianDistance($lat) - $this->originDistance
                + $v * cos($lat) * $delta * $l / 2.0 * $half * $half,
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $lat = $this->latitude->fromMeridianDistance($this->originDistance + $northing - $this->falseNorthing);
        $x = $easting - $this->falseEasting;
        if (is_nan($lat + $x) || abs($lat) > 1.56 || abs($x) > 1.2e7) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        $delta = max(-1.4, min(1.4, $x / ($this->ellipsoid->primeVertical($lat) * cos($lat))));

        return NewtonInverse::solve($this, $easting, $northing, $lat * cos($delta / 2.0), $this->originLon + $delta, self::NAME);
    }
}
