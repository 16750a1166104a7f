<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Projection;

/** Mercator variants A and B (EPSG methods 9804 and 9805; Guidance Note 7-2, section 3.5.1). */
final class Mercator implements Projection
{
    private readonly AuxiliaryLatitude $latitude;
    private readonly float $radius;

    public function __construct(
        Ellipsoid $ellipsoid,
        private readonly float $originLon,
        float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->latitude = new AuxiliaryLatitude($ellipsoid);
        $this->radius = $ellipsoid->a * $scale;
    }

    /** Variant B: the scale is true on a parallel. */
    public static function trueAt(Ellipsoid $ellipsoid, float $parallel, float $originLon, float $falseEasting, float $falseNorthing): self
    {
        $s = sin($parallel);
        if (abs($parallel) > \M_PI_2 - 1e-9) {
            throw new OutsideProjection('the standard parallel of a Mercator projection cannot be a pole');
        }

        return new self($ellipsoid, $originLon, cos($parallel) / sqrt(1.0 - $ellipsoid->e2 * $s * $s), $falseEasting, $falseNorthing);
    }

    public function forward(float $lat, float $lon): array
    {
        if (is_nan($lat) || abs($lat) > 1.5707) {
            throw Turn::outside('Mercator', $lat, $lon);
        }

        return [
            $this->falseEasting + $this->radius * Turn::difference($lon, $this->originLon),
            $this->falseNorthing + $this->radius * $this->latitude->isometric($lat),
        ];
    }

    public function inverse(float $easting, float $northing): array
    {
        $lon = ($easting - $this->falseEasting) / $this->radius;
        $psi = ($northing - $this->falseNorthing) / $this->radius;
        if (is_nan($lon + $psi) || abs($lon) > \M_PI * 1.0000001 || abs($psi) > 10.0) {
            throw Turn::outsidePlane('Mercator', $easting, $northing);
        }

        return [$this->latitude->fromIsometric($psi), $this->originLon + $lon];
    }
}
