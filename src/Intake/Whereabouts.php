<?php

declare(strict_types=1);

namespace App\Intake;

use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Geodesy\Geodesic;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;

/** Whether places are where a project can be expected: near its points, or in its system's area of use while it has none. */
final readonly class Whereabouts
{
    private const FAR_METRES = 200000.0;

    private Geodesic $geodesic;

    public function __construct(public HorizontalSystem $system, private ?Area $extent)
    {
        $this->geodesic = new Geodesic(Ellipsoid::wgs84());
    }

    /** Of a place in degrees from Greenwich; while the project has no points the area of use decides. */
    public function isPlausible(?Area $use, float $lat, float $lon): bool
    {
        $lon = self::wrapped($lon);

        return null !== $this->extent
            ? $this->away($this->extent, $lat, $lon) < self::FAR_METRES
            : null === $use || $use->contains($lat, $lon);
    }

    /**
     * What is odd about where points lie, null when nothing is.
     *
     * @param list<PointRecord> $records in the project's system
     */
    public function doubt(array $records): ?string
    {
        if ([] === $records) {
            return null;
        }
        $worst = 0.0;
        $which = '';
        $place = '';
        $outside = 0;
        foreach ($records as $r) {
            try {
                [$lat, $lon] = $this->system->toGeographic((float) $r->e, (float) $r->n);
            } catch (\DomainException) {
                return \sprintf('%s lies outside what %s can represent', $r->name, $this->system->label());
            }
            [$lat, $lon] = [rad2deg($lat), self::wrapped(rad2deg($lon))];
            $outside += (int) (null !== $this->system->area && !$this->system->area->contains($lat, $lon));
            $away = null === $this->extent ? 0.0 : $this->away($this->extent, $lat, $lon);
            if ($away > $worst || '' === $place) {
                $worst = $away;
                $which = $r->name;
                $halves = [$lat < 0.0 ? 'south' : 'north', $lon < 0.0 ? 'west' : 'east'];
                $place = \sprintf('%.2f° %s, %.2f° %s', abs($lat), $halves[0], abs($lon), $halves[1]);
            }
        }
        if ($worst > self::FAR_METRES) {
            return \sprintf('%s would lie at %s, %s km from the project', $which, $place, number_format($worst / 1000.0, 0, '.', ' '));
        }

        $use = $this->system->area?->shortName() ?? '';
        $words = '%d of %d points lie outside the area of use of %s (%s); %s would lie at %s';

        return 0 === $outside ? null : \sprintf($words, $outside, \count($records), $this->system->label(), $use, $which, $place);
    }

    private static function wrapped(float $lon): float
    {
        return fmod($lon + 900.0, 360.0) - 180.0;
    }

    /** Distance from the nearest place of an area, metres on the ellipsoid. */
    private function away(Area $area, float $lat, float $lon): float
    {
        if ($area->contains($lat, $lon)) {
            return 0.0;
        }
        $nearLat = max($area->south, min($area->north, $lat));
        $inside = $area->contains($nearLat, $lon);
        $toWest = abs(fmod($lon - $area->west + 540.0, 360.0) - 180.0);
        $toEast = abs(fmod($lon - $area->east + 540.0, 360.0) - 180.0);

        $nearLon = $inside ? $lon : ($toWest < $toEast ? $area->west : $area->east);

        return $this->geodesic->inverse($lat, $lon, $nearLat, $nearLon)['distance'];
    }
}
