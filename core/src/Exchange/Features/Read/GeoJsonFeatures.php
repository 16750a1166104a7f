<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/** Features of GeoJSON (RFC 7946, and the older crs member, which the look has read). */
final class GeoJsonFeatures
{
    private const SINGLE = ['Point' => Feature::POINT, 'LineString' => Feature::LINE, 'Polygon' => Feature::POLYGON];
    private const MULTI = ['MultiPoint' => Feature::POINT, 'MultiLineString' => Feature::LINE, 'MultiPolygon' => Feature::POLYGON];
    private const DEEPEST = 64;

    public static function read(FeatureSet $set, string $path, string $layer, string $name): void
    {
        $text = (string) file_get_contents($path);
        if (str_starts_with($text, "\xFF\xFE") || str_starts_with($text, "\xFE\xFF")) {
            $text = mb_convert_encoding(substr($text, 2), 'UTF-8', str_starts_with($text, "\xFF") ? 'UTF-16LE' : 'UTF-16BE');
        }
        $text = str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
        try {
            $json = json_decode($text, true, 4 * self::DEEPEST, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput($name, 'is no JSON: '.$e->getMessage());
        }
        unset($text);
        $layer = \is_array($json) && \is_string($json['name'] ?? null) && '' !== $json['name'] ? $json['name'] : $layer;
        $features = match (\is_array($json) ? $json['type'] ?? null : null) {
            'FeatureCollection' => \is_array($json['features'] ?? null) ? $json['features'] : [],
            'Feature' => [$json],
            default => [['type' => 'Feature', 'geometry' => $json]],
        };
        foreach ($features as $feature) {
            if (!\is_array($feature)) {
                continue;
            }
            $parts = [];
            $kind = self::geometry($feature['geometry'] ?? null, $parts, 0);
            if (null !== $kind && [] !== $parts) {
                $given = \is_array($feature['properties'] ?? null) ? $feature['properties'] : [];
                $set->features[] = new Feature($kind, $layer, $parts, self::properties($given, $feature['id'] ?? null));
            }
        }
    }

    /**
     * @param array<mixed> $given
     *
     * @return array<string, string|int|float|bool|null>
     */
    private static function properties(array $given, mixed $id): array
    {
        $properties = [];
        foreach ($given as $key => $value) {
            $properties[(string) $key] = null === $value || \is_scalar($value) ? $value
                : (string) json_encode($value, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
        }
        if ((\is_string($id) || \is_int($id)) && !isset($properties['id'])) {
            $properties['id'] = $id;
        }

        return $properties;
    }

    /** @param list<list<list<array{float, float, ?float}>>> $parts */
    private static function geometry(mixed $geometry, array &$parts, int $depth): ?string
    {
        if (!\is_array($geometry) || $depth > self::DEEPEST) {
            return null;
        }
        $type = (string) ($geometry['type'] ?? '');
        if ('GeometryCollection' === $type) {
            $kind = null;
            foreach (\is_array($geometry['geometries'] ?? null) ? $geometry['geometries'] : [] as $part) {
                $inner = [];
                $of = self::geometry($part, $inner, $depth + 1);
                $kind ??= $of;
                if ($kind === $of) {
                    array_push($parts, ...$inner);
                }
            }

            return $kind;
        }
        $coordinates = $geometry['coordinates'] ?? null;
        if (!\is_array($coordinates)) {
            return null;
        }
        foreach (isset(self::MULTI[$type]) ? $coordinates : [$coordinates] as $one) {
            $rings = match ($type) {
                'Point', 'MultiPoint' => [self::ring([$one])],
                'LineString', 'MultiLineString' => [self::ring($one)],
                'Polygon', 'MultiPolygon' => array_values(array_map(self::ring(...), \is_array($one) ? $one : [])),
                default => [],
            };
            $rings = array_values(array_filter($rings, static fn (array $ring): bool => [] !== $ring));
            if ([] !== $rings) {
                $parts[] = $rings;
            }
        }

        return self::SINGLE[$type] ?? self::MULTI[$type] ?? null;
    }

    /** @return list<array{float, float, ?float}> */
    private static function ring(mixed $places): array
    {
        $ring = [];
        foreach (\is_array($places) ? $places : [] as $p) {
            if (\is_array($p) && self::isNumber($p[0] ?? null) && self::isNumber($p[1] ?? null)) {
                $ring[] = [(float) $p[0], (float) $p[1], self::isNumber($p[2] ?? null) ? (float) $p[2] : null];
            }
        }

        return $ring;
    }

    private static function isNumber(mixed $value): bool
    {
        return \is_int($value) || \is_float($value);
    }
}
