<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** Lambert azimuthal equal area, oblique, equatorial and polar (EPSG method 9820; Guidance Note 7-2, section 3.4.2). */
final class LambertAzimuthalEqualArea implements Projection
{
    private const NAME = 'Lambert azimuthal equal area';

    private readonly AuxiliaryLatitude $latitude;
    private readonly float $a;
    private readonly float $pole;
    private readonly float $sinOrigin;
    private readonly float $cosOrigin;
    private readonly float $authalicRadius;
    private readonly float $d;

    public function __construct(
        Ellipsoid $ellipsoid,
        float $originLat,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->a = $ellipsoid->a;
        $this->pole = abs($originLat) > \M_PI_2 - 1e-9 ? ($originLat > 0.0 ? 1.0 : -1.0) : 0.0;
        $this->sinOrigin = $this->latitude->authalicQ(sin($originLat)) / $this->latitude->qPole;
        $this->cosOrigin = sqrt(max(0.0, 1.0 - $this->sinOrigin ** 2));
        $this->authalicRadius = $ellipsoid->a * sqrt($this->latitude->qPole / 2.0);
        $this->d = 0.0 !== $this->pole ? 1.0 : $ellipsoid
            ->a * cos($originLat) / sqrt(1.0 - $ellipsoid->e2 * sin($originLat) ** 2) / ($this->authalicRadius * $this->cosOrigin);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $delta = Turn::difference($lon, $this->originLon);
        $q = $this->latitude->authalicQ(sin($lat));
        if (0.0 !== $this->pole) {
            $r = $this->a * sqrt(max(0.0, $this->latitude->qPole - $this->pole * $q));

            return [$this->falseEasting + $r * sin($delta), $this->falseNorthing - $this->pole * $r * cos($delta)];
        }
        $sin = $q / $this->latitude->qPole;
        $cos = sqrt(max(0.0, 1.0 - $sin * $sin));
        $inside = 1.0 + $this->sinOrigin * $sin + $this->cosOrigin * $cos * cos($delta);
        if ($inside < 1e-9) {
            throw Turn::outside(self::NAME, $lat, $lon);
        }
        $b = $this->authalicRadius * sqrt(2.0 / $inside);

        return [
            $this->falseEasting + $b * $this->d * $cos * sin($delta),
            $this->falseNorthing + $b / $this->d * ($this->cosOrigin * $sin - $this->sinOrigin * $cos * cos($delta)),
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = ($easting - $this->falseEasting) / $this->d;
        $y = ($northing - $this->falseNorthing) * $this->d;
        $r = sqrt($x * $x + $y * $y);
        if (is_nan($r) || $r > 2.0 * $this->authalicRadius) {
            throw Turn::outsidePlane(self::NAME, $easting, $northing);
        }
        if (0.0 !== $this->pole) {
            return [
                $this->latitude->fromAuthalicQ($this->pole * ($this->latitude->qPole - ($r / $this->a) ** 2)),
                $this->originLon + (0.0 === $r ? 0.0 : atan2($x, -$this->pole * $y)),
            ];
        }
        if (0.0 === $r) {
            return [$this->latitude->fromAuthalicQ($this->sinOrigin * $this->latitude->qPole), $this->originLon];
        }
        $c = 2.0 * asin($r / (2.0 * $this->authalicRadius));
        $sin = cos($c) * $this->sinOrigin + $y * sin($c) * $this->cosOrigin / $r;

        return [
            $this->latitude->fromAuthalicQ($sin * $this->latitude->qPole),
            $this->originLon + atan2($x * sin($c), $r * $this->cosOrigin * cos($c) - $y * $this->sinOrigin * sin($c)),
        ];
    }
}
