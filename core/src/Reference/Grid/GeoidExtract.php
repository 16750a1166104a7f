<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Geodesy\Geodesic;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Operation\Route;

/**
 * A geoid model cut to an area: limits snapped outward to the nodes kept, the step kept or changed, heights above the
 * model's own ellipsoid or above a local datum's (N there is N less what the datum shift does to the height).
 */
final readonly class GeoidExtract
{
    private const FARTHEST_KM = 100.0;
    private const MOST_NODES = 25_000_000;

    private function __construct(
        private GeoidGrid $source,
        public float $south,
        public float $west,
        public float $dLat,
        public float $dLon,
        public int $rows,
        public int $columns,
        public bool $sameStep,
    ) {
    }

    /**
     * @param ?float $step degrees between nodes; null keeps the source's
     *
     * @throws UnreadableGrid when the source does not cover the area or the extract cannot be made
     */
    public static function plan(GeoidGrid $source, Area $area, ?float $step): self
    {
        if (null !== $step && (is_nan($step) || $step < 1.0 / 3600.0 || $step > 5.0)) {
            throw new UnreadableGrid('a grid step lies between 1 second and 5 degrees');
        }
        $dLat = $step ?? $source->dLat;
        $dLon = $step ?? $source->dLon;
        $width = $area->width();
        if (null === $step) {
            // Nodes of the source: those that frame the area.
            $row = (int) floor(($area->south - $source->south) / $dLat + 1e-9);
            $top = (int) ceil(($area->north - $source->south) / $dLat - 1e-9);
            $offset = fmod($area->west - $source->west + 720.0, 360.0);
            $column = (int) floor($offset / $dLon + 1e-9);
            $right = (int) ceil(($offset + $width) / $dLon - 1e-9);
            $south = $source->south + $row * $dLat;
            $west = $source->west + $column * $dLon;
            $rows = max(2, $top - $row + 1);
            $columns = max(2, $right - $column + 1);
        } else {
            $south = $area->south;
            $west = $area->west;
            $rows = max(2, (int) ceil(($area->north - $area->south) / $dLat - 1e-9) + 1);
            $columns = max(2, (int) ceil($width / $dLon - 1e-9) + 1);
            // The last node may pass the area's edge; where the source ends there, the extract begins earlier instead.
            if ($south + ($rows - 1) * $dLat > $source->north() + 1e-9) {
                $south = $source->north() - ($rows - 1) * $dLat;
            }
        }
        if ($rows * $columns > self::MOST_NODES) {
            throw new UnreadableGrid(\sprintf(
                '%d by %d nodes are too many for an extract; take a smaller area or a wider step',
                $rows,
                $columns,
            ));
        }
        $west = $west > 180.0 ? $west - 360.0 : $west;
        $extract = new self(
            $source, $south, $west, $dLat, $dLon, $rows, $columns,
            null === $step || abs($step - $source->dLat) < 1e-12 && abs($step - $source->dLon) < 1e-12,
        );
        foreach ([[0, 0], [0, $columns - 1], [$rows - 1, 0], [$rows - 1, $columns - 1]] as [$r, $c]) {
            try {
                $source->height($extract->lat($r), $extract->lon($c));
            } catch (OutsideGrid $e) {
                throw new UnreadableGrid(\sprintf('the geoid %s does not cover the area: %s', $source->name, $e->getMessage()));
            }
        }

        return $extract;
    }

    /**
     * The area within a radius of a point.
     *
     * @throws UnreadableGrid for a radius beyond 100 km
     */
    public static function around(float $lat, float $lon, float $radiusKm, Ellipsoid $ellipsoid): Area
    {
        if (is_nan($radiusKm) || $radiusKm <= 0.0 || $radiusKm > self::FARTHEST_KM) {
            throw new UnreadableGrid(\sprintf('a radius of %s km is not between 0 and %d km', $radiusKm, (int) self::FARTHEST_KM));
        }
        $geodesic = new Geodesic($ellipsoid);
        $north = min(90.0, $geodesic->direct($lat, $lon, 0.0, 1000.0 * $radiusKm)['lat']);
        $south = max(-90.0, $geodesic->direct($lat, $lon, 180.0, 1000.0 * $radiusKm)['lat']);
        $widest = abs($north) > abs($south) ? $north : $south;
        $half = rad2deg($radiusKm * 1000.0 / ($ellipsoid->primeVertical(deg2rad($widest)) * max(1e-6, cos(deg2rad($widest)))));
        if ($half >= 180.0) {
            return new Area($south, -180.0, $north, 180.0);
        }
        $turn = static fn (float $x): float => $x > 180.0 ? $x - 360.0 : ($x < -180.0 ? $x + 360.0 : $x);

        return new Area($south, $turn($lon - $half), $north, $turn($lon + $half));
    }

    /**
     * @param ?Route $toSource from the local datum (three-dimensional) to the model's; null for the model's own ellipsoid
     */
    public function make(string $name, string $ellipsoid, ?Route $toSource = null): GeoidGrid
    {
        $values = '';
        for ($r = 0; $r < $this->rows; ++$r) {
            $row = [];
            for ($c = 0; $c < $this->columns; ++$c) {
                $row[] = self::value($this->source, $this->lat($r), $this->lon($c), $toSource);
            }
            $values .= pack('G*', ...$row);
        }

        return new GeoidGrid($name, $this->south, $this->west, $this->dLat, $this->dLon, $this->rows, $this->columns, $values, $ellipsoid);
    }

    /**
     * Extract against source at random places.
     *
     * @return array{count: int, largest: float, mean: float, rms: float} metres, extract less source
     */
    public static function verify(GeoidGrid $extract, GeoidGrid $source, ?Route $toSource, int $count = 200, int $seed = 1): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $largest = $sum = $squares = 0.0;
        $n = 0;
        for ($i = 0; $i < $count; ++$i) {
            $lat = $extract->south + ($extract->north() - $extract->south) * $random->getInt(0, 1_000_000) / 1e6;
            $lon = $extract->west + ($extract->east() - $extract->west) * $random->getInt(0, 1_000_000) / 1e6;
            $d = $extract->height($lat, $lon) - self::value($source, $lat, $lon, $toSource);
            $largest = max($largest, abs($d));
            $sum += $d;
            $squares += $d * $d;
            ++$n;
        }

        return ['count' => $n, 'largest' => $largest, 'mean' => $sum / max(1, $n), 'rms' => sqrt($squares / max(1, $n))];
    }

    private function lat(int $row): float
    {
        return $this->south + $row * $this->dLat;
    }

    private function lon(int $column): float
    {
        return $this->west + $column * $this->dLon;
    }

    private static function value(GeoidGrid $source, float $lat, float $lon, ?Route $toSource): float
    {
        if (null === $toSource) {
            return $source->height($lat, $lon);
        }
        [$p, $l, $h] = $toSource->apply(deg2rad($lat), deg2rad($lon), 0.0);

        return $source->height(rad2deg($p), rad2deg($l)) - $h;
    }
}
