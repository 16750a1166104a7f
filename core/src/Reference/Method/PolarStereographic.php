<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** Polar stereographic, variants A, B and C (EPSG methods 9810, 9829, 9830; Guidance Note 7-2, section 3.3.2). */
final class PolarStereographic implements Projection
{
    private readonly AuxiliaryLatitude $latitude;

    private function __construct(
        Ellipsoid $ellipsoid,
        /** 1 at the north pole, -1 at the south pole. */
        private readonly float $pole,
        /** Distance from the pole over exp(-isometric latitude), m. */
        private readonly float $radius,
        private readonly float $originLon,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
    }

    public static function scaled(
        Ellipsoid $ellipsoid,
        bool $north,
        float $originLon,
        float $scale,
        float $falseEasting,
        float $falseNorthing,
    ): self {
        $e = sqrt($ellipsoid->e2);
        $radius = 2.0 * $ellipsoid->a * $scale / sqrt((1.0 + $e) ** (1.0 + $e) * (1.0 - $e) ** (1.0 - $e));

        return new self($ellipsoid, $north ? 1.0 : -1.0, $radius, $originLon, $falseEasting, $falseNorthing);
    }

    /** @param bool $falseAtParallel variant C: false values belong to the parallel on the origin's meridian, not to the pole */
    public static function trueAt(
        Ellipsoid $ellipsoid,
        float $parallel,
        float $originLon,
        float $falseEasting,
        float $falseNorthing,
        bool $falseAtParallel,
    ): self {
        $s = sin($parallel);
        $pole = $parallel >= 0.0 ? 1.0 : -1.0;
        if (abs($parallel) > \M_PI_2 - 1e-12) {
            return self::scaled($ellipsoid, $pole > 0.0, $originLon, 1.0, $falseEasting, $falseNorthing);
        }
        $distance = $ellipsoid->a * cos($parallel) / sqrt(1.0 - $ellipsoid->e2 * $s * $s);
        $radius = $distance * exp((new AuxiliaryLatitude($ellipsoid))->isometric(abs($parallel)));

        return new self(
            $ellipsoid, $pole, $radius, $originLon, $falseEasting,
            $falseAtParallel ? $falseNorthing + $pole * $distance : $falseNorthing,
        );
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        if ($this->pole * $lat < -1.5) {
            throw Turn::outside('polar stereographic', $lat, $lon);
        }
        $r = abs($lat) > \M_PI_2 - 1e-15 ? 0.0 : $this->radius * exp(-$this->latitude->isometric($this->pole * $lat));
        $d = Turn::difference($lon, $this->originLon);

        return [$this->falseEasting + $r * sin($d), $this->falseNorthing - $this->pole * $r * cos($d)];
    }

    public function inverse(float $easting, float $northing): array
    {
        $x = $easting - $this->falseEasting;
        $y = -$this->pole * ($northing - $this->falseNorthing);
        $r = sqrt($x * $x + $y * $y);
        if (is_nan($r) || $r > 40.0 * $this->radius) {
            throw Turn::outsidePlane('polar stereographic', $easting, $northing);
        }
        if (0.0 === $r) {
            return [$this->pole * \M_PI_2, $this->originLon];
        }

        return [$this->pole * $this->latitude->fromIsometric(-log($r / $this->radius)), $this->originLon + atan2($x, $y)];
    }
}
