<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Projection;

/** Transverse Mercator zoned grid (EPSG method 9824): eastings carry the zone number in millions of metres. */
final class ZonedTransverseMercator implements Projection
{
    /** @var array<int, TransverseMercator> */
    private array $zones = [];

    private readonly int $count;

    public function __construct(
        private readonly Ellipsoid $ellipsoid,
        private readonly float $originLat,
        private readonly float $initialLon,
        private readonly float $width,
        private readonly float $scale,
        private readonly float $falseEasting,
        private readonly float $falseNorthing,
    ) {
        $this->count = (int) round(2.0 * \M_PI / $width);
    }

    public function forward(float $lat, float $lon): array
    {
        Turn::latitude($lat);
        $turns = ($lon - $this->initialLon) / $this->width;
        $zone = (((int) floor($turns)) % $this->count + $this->count) % $this->count + 1;
        [$e, $n] = $this->zone($zone)->forward($lat, $lon);

        return [$e + $zone * 1e6, $n];
    }

    public function inverse(float $easting, float $northing): array
    {
        $zone = (int) floor($easting / 1e6);
        if ($zone < 1 || $zone > $this->count) {
            throw Turn::outsidePlane('zoned transverse Mercator', $easting, $northing);
        }

        return $this->zone($zone)->inverse($easting - $zone * 1e6, $northing);
    }

    private function zone(int $zone): TransverseMercator
    {
        return $this->zones[$zone] ??= new TransverseMercator(
            $this->ellipsoid, $this->originLat, $this->initialLon + ($zone - 0.5) * $this->width, $this->scale,
            $this->falseEasting, $this->falseNorthing,
        );
    }
}
