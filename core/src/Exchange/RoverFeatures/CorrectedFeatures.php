<?php

declare(strict_types=1);

namespace Mensura\Exchange\RoverFeatures;

/** Corrected features as GeoJSON (RFC 7946), longitude first and heights above the ellipsoid, with what each is worth. */
final class CorrectedFeatures
{
    /**
     * @param list<array{
     *     id: string, kind: string, code: string, attributes: array<string, mixed>, vertices: list<array<string, ?float>>,
     *     positions: int, used: int, before: float, sdPlan: ?float, sdUp: ?float, solution: string,
     * }> $rows those that were not corrected are left out
     */
    public static function write(string $name, array $rows): string
    {
        $features = [];
        foreach ($rows as $row) {
            if (null === $row['sdPlan']) {
                continue;
            }
            $line = array_map(static fn (array $v): array => [
                round((float) $v['lon'], 10), round((float) $v['lat'], 10), round((float) $v['ellipsoidal'], 4),
            ], $row['vertices']);
            if ('Polygon' === $row['kind']) {
                $line[] = $line[0];
            }
            $features[] = [
                'type' => 'Feature', 'id' => $row['id'],
                'geometry' => ['type' => $row['kind'], 'coordinates' => match ($row['kind']) {
                    'Point' => $line[0], 'Polygon' => [$line], default => $line,
                }],
                'properties' => [
                    'code' => $row['code'], 'sdPlan' => round($row['sdPlan'], 4), 'sdUp' => round(
                        (float) $row['sdUp'], 4,
                    ), 'solution' => $row['solution'],
                    'positions' => $row['used'], 'sdBefore' => $row['before'],
                ] + $row['attributes'],
            ];
        }

        return json_encode(
            ['type' => 'FeatureCollection', 'name' => $name, 'features' => $features],
            \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRETTY_PRINT,
        )."\n";
    }
}
