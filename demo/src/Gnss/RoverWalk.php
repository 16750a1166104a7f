<?php

declare(strict_types=1);

namespace Demo\Gnss;

use Demo\TruthModel;
use Mensura\Exchange\RoverFeatures\RoverFeatures;

/** A mapping rover that collects the drainage in the field: ten positions a gully, a ditch vertex by vertex, codes only. */
final class RoverWalk
{
    /** Seconds after the sessions' noon. */
    private const BEGIN = 1200;
    private const HEIGHT = 2.0;
    private const WALK = 12;
    public const RINEX = 'rover-1220.31o';

    /** True places: easting, northing, height, code; positions collected. */
    public const POINTS = [
        [493342.0, 6028371.5, 233.30, 'GULLY'], [493366.4, 6028380.2, 232.91, 'GULLY'], [493395.1, 6028377.8, 232.44, 'MANHOLE'],
        [493421.7, 6028366.0, 231.98, 'GULLY'], [493447.3, 6028352.9, 231.60, 'OUTFALL'], [493471.0, 6028349.1, 231.22, 'GULLY'],
        [493498.6, 6028355.4, 230.83, 'MANHOLE'], [493520.9, 6028366.7, 230.41, 'GULLY'],
    ];
    public const DITCH = [
        [493340.0, 6028364.0, 233.1], [493362.0, 6028372.0, 232.7], [493388.0, 6028371.0, 232.3], [493412.0, 6028359.0, 231.9],
        [493440.0, 6028346.0, 231.4],
    ];

    /** @param bool $carriers the rover records phases too */
    public function __construct(private readonly TruthModel $truth, private readonly bool $carriers = false)
    {
    }

    /** @return array<string, string> contents by file name */
    public function files(): array
    {
        $path = [];
        $features = [];
        foreach (self::POINTS as $i => [$e, $n, $h, $code]) {
            $positions = $this->stand($path, $e, $n, $h, 10, 0);
            $features[] = self::feature('D'.($i + 1), 'Point', $code, ['condition' => 0 === $i % 3 ? 'silted' : 'clear'], $positions);
        }
        $vertices = [];
        foreach (self::DITCH as $v => [$e, $n, $h]) {
            array_push($vertices, ...$this->stand($path, $e, $n, $h, 5, $v));
        }
        $features[] = self::feature('DITCH1', 'LineString', 'DITCH', ['lining' => 'grass'], $vertices);
        $sky = new Sky(TruthModel::SEED, Sessions::WEEK, 43200.0, 'GE', TruthModel::SEED + 7);
        $places = array_map(fn (array $p): array => $this->geocentric($p[0], $p[1], $p[2] + self::HEIGHT), $path);
        $rinex = $sky->observations(new Receiver(
            'ROVER', static fn (int $k): array => $places[$k], \count($places), 1.0, 3e-5,
            $this->carriers ? Receiver::EVERYTHING : ['G' => ['C1C', 'S1C'], 'E' => ['C1C', 'S1C']],
            begin: (float) self::BEGIN, height: self::HEIGHT, codeNoise: 0.25,
        ));
        $json = json_encode([
            'type' => 'FeatureCollection', 'format' => RoverFeatures::FORMAT, 'name' => 'Drainage', 'rinex' => self::RINEX,
            'antennaHeight' => self::HEIGHT, 'features' => $features,
        ], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);

        return [self::RINEX => $rinex, 'drainage-features.geojson' => $json];
    }

    /**
     * Some seconds on the way, then as many on the place.
     *
     * @param list<array{float, float, float}> $path filled here, one place a second
     *
     * @return list<array<string, mixed>> positions
     */
    private function stand(array &$path, float $e, float $n, float $h, int $count, int $vertex): array
    {
        $last = $path[\count($path) - 1] ?? [$e - 5.0, $n, $h];
        for ($k = 1; $k < self::WALK; ++$k) {
            $part = $k / self::WALK;
            $path[] = [$last[0] + $part * ($e - $last[0]), $last[1] + $part * ($n - $last[1]), $last[2] + $part * ($h - $last[2])];
        }
        $positions = [];
        for ($k = 0; $k < $count; ++$k) {
            $second = \count($path);
            $path[] = [$e, $n, $h];
            // What the rover believes by itself wanders over metres.
            [$lat, $lon, $height] = \Mensura\Geodesy\Ellipsoid::grs80()->toGeodetic(...$this->geocentric(
                $e + 1.6 * sin($second / 90.0) + 0.9, $n + 1.3 * cos($second / 70.0) - 0.7, $h + 2.6 * sin($second / 55.0) + 1.5,
            ));
            $positions[] = [
                'time' => gmdate('\g\p\s:Y-m-d\TH:i:s', gmmktime(12, 0, 0, 5, 4, 2031) + self::BEGIN + $second), 'vertex' => $vertex,
                'lon' => round(rad2deg($lon), 9), 'lat' => round(rad2deg($lat), 9), 'h' => round($height, 3), 'sd' => 2.5,
            ];
        }

        return $positions;
    }

    /** @return array{float, float, float} */
    private function geocentric(float $e, float $n, float $h): array
    {
        return $this->truth->frame->geometry($e, $n, $h)['position'];
    }

    /**
     * @param array<string, string>      $attributes
     * @param list<array<string, mixed>> $positions
     *
     * @return array<string, mixed>
     */
    private static function feature(string $id, string $kind, string $code, array $attributes, array $positions): array
    {
        $coordinates = [];
        foreach ($positions as $p) {
            $coordinates[$p['vertex']] = [$p['lon'], $p['lat'], $p['h']];
        }

        return [
            'type' => 'Feature', 'id' => $id, 'geometry' => [
                'type' => $kind, 'coordinates' => 'Point' === $kind ? $coordinates[0] : array_values($coordinates),
            ],
            'properties' => ['code' => $code, 'attributes' => $attributes, 'positions' => $positions],
        ];
    }
}
