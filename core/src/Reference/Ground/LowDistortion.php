<?php

declare(strict_types=1);

namespace Mensura\Reference\Ground;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Method\Methods;

/**
 * A projection made for one site: grid distances close to those on the ground at its height. The central scale is
 * 1 + h / R at the centre, which brings the projection's surface up to the site; transverse Mercator and Lambert conic
 * are both tried and the one with the smaller range of distortion over the extent is proposed (common practice).
 */
final class LowDistortion
{
    /**
     * @param float $height ellipsoidal height of the site, metres
     *
     * @return array{
     *     system: HorizontalSystem, method: string, scale: float, ppm: array{min: float, max: float, mean: float},
     *     other: array{method: string, min: float, max: float},
     * }
     */
    public static function propose(
        string $name,
        Datum $datum,
        ?string $geodetic,
        string $geodeticName,
        Area $extent,
        float $height,
        float $falseEasting = 50000.0,
        float $falseNorthing = 100000.0,
    ): array {
        $lat0 = ($extent->south + $extent->north) / 2.0;
        $lon0 = $extent->west + $extent->width() / 2.0;
        $lon0 = $lon0 > 180.0 ? $lon0 - 360.0 : $lon0;
        if (abs($lat0) > 85.0) {
            throw new \DomainException('a low-distortion projection is not proposed this near a pole');
        }
        $ellipsoid = $datum->ellipsoid;
        $phi = deg2rad($lat0);
        $radius = sqrt($ellipsoid->meridian($phi) * $ellipsoid->primeVertical($phi));
        $scale = round(1.0 + $height / $radius, 6);
        $origin = [
            8801 => deg2rad(round($lat0 * 60.0) / 60.0),
            8802 => deg2rad(round($lon0 * 60.0) / 60.0 - $datum->primeMeridian), 8805 => $scale,
            8806 => $falseEasting, 8807 => $falseNorthing,
        ];
        $tried = [];
        foreach ([9807, 9801] as $method) {
            if (9801 === $method && abs($lat0) < 2.0) {
                continue;
            }
            $conversion = new Conversion($method, $origin, $name);
            $system = new HorizontalSystem(
                HorizontalSystem::PROJECTED, null, $name, $datum, $geodetic, 2, $conversion,
                Methods::projection($conversion, $ellipsoid), axes: [new Axis('E', 'east'), new Axis('N', 'north')],
                area: $extent, geodeticName: $geodeticName,
            );
            $tried[] = [
                'system' => $system, 'method' => Methods::METHODS[$method][0], 'scale' => $scale,
                'ppm' => self::range($system, $extent, $height),
            ];
        }
        usort($tried, static fn (
            array $a, array $b,
        ): int => max(abs($a['ppm']['min']), abs($a['ppm']['max'])) <=> max(abs($b['ppm']['min']), abs($b['ppm']['max'])));
        $other = $tried[1] ?? $tried[0];

        return $tried[0] + ['other' => ['method' => $other['method'], 'min' => $other['ppm']['min'], 'max' => $other['ppm']['max']]];
    }

    /** Grid against ground at a position and height, parts per million: positive where grid distances are longer. */
    public static function ppm(HorizontalSystem $system, float $latDegrees, float $lonDegrees, float $height): float
    {
        [$e, $n] = $system->fromGeographic(deg2rad($latDegrees), deg2rad($lonDegrees));

        return 1e6 * (GridPoint::at($system, $e, $n, $height)->combined() - 1.0);
    }

    /** @return array{min: float, max: float, mean: float} */
    private static function range(HorizontalSystem $system, Area $extent, float $height): array
    {
        $all = [];
        for ($i = 0; $i <= 6; ++$i) {
            for ($j = 0; $j <= 6; ++$j) {
                $all[] = self::ppm(
                    $system, $extent->south + ($extent->north - $extent->south) * $i / 6.0,
                    $extent->west + $extent->width() * $j / 6.0, $height,
                );
            }
        }

        return ['min' => min($all), 'max' => max($all), 'mean' => array_sum($all) / \count($all)];
    }
}
