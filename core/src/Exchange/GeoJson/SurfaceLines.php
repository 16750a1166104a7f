<?php

declare(strict_types=1);

namespace Mensura\Exchange\GeoJson;

use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/** Breaklines, boundaries and voids from GeoJSON (RFC 7946 geometry, but in project coordinates), and contours to it. */
final class SurfaceLines
{
    private const ROLES = [SurfaceLine::BREAKLINE, SurfaceLine::BOUNDARY, SurfaceLine::VOID];

    /**
     * @return list<SurfaceLine>
     *
     * @throws UnusableInput
     */
    public static function read(string $json): array
    {
        try {
            $document = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput('', \sprintf('not JSON (%s)', lcfirst($e->getMessage())));
        }
        $features = \is_array($document) ? $document['features'] ?? null : null;
        if (!\is_array($features)) {
            throw new UnusableInput('features', 'is missing; a GeoJSON FeatureCollection is needed');
        }
        $lines = [];
        foreach (array_values($features) as $i => $feature) {
            $path = "features[$i]";
            $role = \is_array($feature) ? $feature['properties']['role'] ?? null : null;
            if (!\in_array($role, self::ROLES, true)) {
                throw new UnusableInput("$path.properties.role", 'must be "breakline", "boundary" or "void"');
            }
            $geometry = $feature['geometry'] ?? null;
            $type = \is_array($geometry) ? $geometry['type'] ?? null : null;
            $coordinates = \is_array($geometry) ? $geometry['coordinates'] ?? null : null;
            $parts = match ($type) {
                'LineString' => [$coordinates],
                'Polygon', 'MultiLineString' => $coordinates,
                default => throw new UnusableInput("$path.geometry.type", 'must be LineString, MultiLineString or Polygon'),
            };
            if (!\is_array($parts)) {
                throw new UnusableInput("$path.geometry.coordinates", 'must be a list of positions');
            }
            foreach (array_values($parts) as $k => $part) {
                $vertices = self::vertices($part, 'LineString' === $type ? "$path.geometry.coordinates" : "$path.geometry.coordinates[$k]");
                $name = $feature['properties']['name'] ?? null;
                $name = \is_string($name) && '' !== $name ? \sprintf('%s (%s)', $path, $name) : $path;
                $closed = \count($vertices) > 1
                    && \array_slice($vertices[0], 0, 2) === \array_slice($vertices[\count($vertices) - 1], 0, 2);
                if (SurfaceLine::BREAKLINE !== $role) {
                    if ($closed) {
                        array_pop($vertices);
                    }
                    // A hole of a boundary polygon is a void; on a hole of a void the surface stands.
                    if ('Polygon' === $type && $k > 0) {
                        $hole = new SurfaceLine(SurfaceLine::VOID, $name, $vertices);
                        if (SurfaceLine::VOID === $role) {
                            $outer = array_pop($lines) ?? throw new \LogicException('A hole comes after its ring.');
                            $hole = new SurfaceLine($outer->role, $outer->name, $outer->vertices, [...$outer->islands, $hole]);
                        }
                        $lines[] = $hole;
                        continue;
                    }
                }
                $lines[] = new SurfaceLine($role, $name, $vertices);
            }
        }

        return $lines;
    }

    /** @return list<array{float, float, ?float}> */
    private static function vertices(mixed $part, string $path): array
    {
        if (!\is_array($part)) {
            throw new UnusableInput($path, 'must be a list of positions');
        }
        $vertices = [];
        foreach (array_values($part) as $k => $position) {
            foreach ([0, 1, 2] as $c) {
                $value = \is_array($position) ? $position[$c] ?? null : null;
                if (2 === $c && null === $value) {
                    continue;
                }
                if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value) || abs($value) > 1e9) {
                    throw new UnusableInput("{$path}[$k]", 'must be [easting, northing] or [easting, northing, height]');
                }
            }
            $vertex = [(float) $position[0], (float) $position[1], isset($position[2]) ? (float) $position[2] : null];
            if ([] === $vertices || \array_slice($vertices[\count($vertices) - 1], 0, 2) !== \array_slice($vertex, 0, 2)) {
                $vertices[] = $vertex;
            }
        }

        return $vertices;
    }

    /**
     * @param list<array{h: float, length: float, lines: list<list<float>>}> $levels
     */
    public static function contours(array $levels): string
    {
        $features = [];
        foreach ($levels as $level) {
            foreach ($level['lines'] as $line) {
                $coordinates = [];
                for ($i = 0, $n = \count($line); $i < $n; $i += 2) {
                    $coordinates[] = [round($line[$i], 6), round($line[$i + 1], 6), $level['h']];
                }
                $features[] = [
                    'type' => 'Feature', 'properties' => ['role' => 'contour', 'h' => $level['h']],
                    'geometry' => ['type' => 'LineString', 'coordinates' => $coordinates],
                ];
            }
        }

        return json_encode(['type' => 'FeatureCollection', 'features' => $features], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }
}
