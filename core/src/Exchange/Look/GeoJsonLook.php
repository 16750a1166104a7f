<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** GeoJSON (RFC 7946, and the older crs member of 2008). A long list of features is read one after the other. */
final class GeoJsonLook
{
    private const KINDS = [
        'Point' => Looked::POINT, 'MultiPoint' => Looked::POINT, 'LineString' => Looked::LINE, 'MultiLineString' => Looked::LINE,
        'Polygon' => Looked::POLYGON, 'MultiPolygon' => Looked::POLYGON,
    ];
    /** Bytes that are read at once; of a larger file the features are taken apart first. */
    private const AT_ONCE = 20_000_000;
    private const DEEPEST = 64;

    public static function read(Looked $l, string $path, string $layer, Systems $systems, string $name): void
    {
        $size = (int) filesize($path);
        if ($size > self::AT_ONCE) {
            self::inParts($l, $path, $layer, $systems, $name);

            return;
        }
        self::document($l, self::decoded(self::text((string) file_get_contents($path), $name), $name), $layer, $systems);
    }

    private static function text(string $bytes, string $name): string
    {
        if (str_starts_with($bytes, "\xFF\xFE") || str_starts_with($bytes, "\xFE\xFF")) {
            $bytes = mb_convert_encoding(substr($bytes, 2), 'UTF-8', str_starts_with($bytes, "\xFF") ? 'UTF-16LE' : 'UTF-16BE');
        }
        if (!mb_check_encoding($bytes, 'UTF-8')) {
            throw new UnusableInput($name, 'is JSON in another encoding than Unicode');
        }

        return str_starts_with($bytes, "\xEF\xBB\xBF") ? substr($bytes, 3) : $bytes;
    }

    private static function decoded(string $text, string $name): mixed
    {
        try {
            return json_decode($text, true, self::DEEPEST * 4, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput($name, 'is no JSON: '.$e->getMessage());
        }
    }

    private static function document(Looked $l, mixed $json, string $layer, Systems $systems): void
    {
        $type = \is_array($json) ? $json['type'] ?? null : null;
        if (!\is_array($json) || !\is_string($type) || !isset(self::KINDS[$type])
            && !\in_array($type, ['FeatureCollection', 'Feature', 'GeometryCollection'], true)) {
            $l->kind = 'unknown';

            return;
        }
        $name = \is_string($json['name'] ?? null) && '' !== $json['name'] ? $json['name'] : $layer;
        $l->layer($name, 0);
        if ('FeatureCollection' === $type) {
            if (!\is_array($json['features'] ?? null)) {
                throw new UnusableInput('/features', 'is not a list');
            }
            foreach ($json['features'] as $feature) {
                self::feature($l, $feature, $name);
            }
        } elseif ('Feature' === $type) {
            self::feature($l, $json, $name);
        } else {
            self::feature($l, ['type' => 'Feature', 'geometry' => $json], $name);
        }
        self::system($l, $json['crs'] ?? null, $systems);
    }

    private static function system(Looked $l, mixed $crs, Systems $systems): void
    {
        $named = \is_array($crs) && \is_array($crs['properties'] ?? null) ? $crs['properties']['name'] ?? null : null;
        if (!\is_string($named)) {
            $l->crs = 'EPSG:4326';
            $l->unit = 'degree';
        } elseif (1 === preg_match('/CRS84h?$/i', $named)) {
            $l->crs = 'EPSG:4326';
            $l->unit = 'degree';
        } elseif (1 === preg_match('/EPSG:(?:[^:]*:)?(\d+)$/i', $named, $m)) {
            $systems->fromCode($l, (int) $m[1]);
        } else {
            $l->warn(\sprintf('its coordinate system "%s" is not known', mb_substr($named, 0, 80)));
        }
    }

    private static function feature(Looked $l, mixed $feature, string $layer): void
    {
        if (!\is_array($feature) || 'Feature' !== ($feature['type'] ?? null)) {
            $l->warn('one of its features is none');

            return;
        }
        $l->layer($layer);
        foreach (\is_array($feature['properties'] ?? null) ? array_keys($feature['properties']) : [] as $key) {
            $l->attribute((string) $key);
        }
        $kind = null;
        if (self::geometry($l, $feature['geometry'] ?? null, $kind, 0) && null !== $kind) {
            $l->count($kind);
        }
    }

    private static function geometry(Looked $l, mixed $geometry, ?string &$kind, int $depth): bool
    {
        if (!\is_array($geometry) || $depth > self::DEEPEST) {
            return false;
        }
        $type = $geometry['type'] ?? null;
        if ('GeometryCollection' === $type) {
            $is = false;
            foreach (\is_array($geometry['geometries'] ?? null) ? $geometry['geometries'] : [] as $part) {
                $is = self::geometry($l, $part, $kind, $depth + 1) || $is;
            }

            return $is;
        }
        if (!\is_string($type) || !isset(self::KINDS[$type])) {
            $l->warn('one of its geometries has no known type');

            return false;
        }
        $kind ??= self::KINDS[$type];

        return self::places($l, $geometry['coordinates'] ?? null, $depth) > 0;
    }

    private static function places(Looked $l, mixed $coordinates, int $depth): int
    {
        if (!\is_array($coordinates) || $depth > self::DEEPEST) {
            return 0;
        }
        $x = $coordinates[0] ?? null;
        $y = $coordinates[1] ?? null;
        if ((\is_float($x) || \is_int($x)) && (\is_float($y) || \is_int($y))) {
            $z = $coordinates[2] ?? null;
            $l->reach((float) $x, (float) $y, \is_float($z) || \is_int($z) ? (float) $z : null);

            return 1;
        }
        $count = 0;
        foreach ($coordinates as $part) {
            $count += self::places($l, $part, $depth + 1);
        }

        return $count;
    }

    /** A large file: the list of features is taken apart by its braces, what stands around it is read as it is. */
    private static function inParts(Looked $l, string $path, string $layer, Systems $systems, string $name): void
    {
        $file = fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
        $around = '';
        $part = '';
        $depth = 0;
        $inText = $escaped = $inFeatures = false;
        $base = 0;
        $label = $layer;
        while ('' !== $chunk = (string) fread($file, 1 << 20)) {
            for ($i = 0, $n = \strlen($chunk); $i < $n; ++$i) {
                $c = $chunk[$i];
                if ($inText) {
                    $length = strcspn($chunk, '"\\', $i);
                    if (!$escaped && $length > 0) {
                        $part .= substr($chunk, $i, $length);
                        $i += $length - 1;
                        continue;
                    }
                    $inText = $escaped || '"' !== $c;
                    $escaped = !$escaped && '\\' === $c;
                    $part .= $c;
                    continue;
                }
                $part .= $c;
                if ('"' === $c) {
                    $inText = true;
                } elseif ('{' === $c || '[' === $c) {
                    ++$depth;
                    if (!$inFeatures && '[' === $c && 2 === $depth && 1 === preg_match('/"features"\s*:\s*\[$/', $part)) {
                        $inFeatures = true;
                        $base = $depth;
                        $around .= $part;
                        $part = '';
                    }
                } elseif ('}' === $c || ']' === $c) {
                    --$depth;
                    if ($inFeatures && '}' === $c && $depth === $base) {
                        self::feature($l, self::decoded(self::text(ltrim($part, ", \t\r\n"), $name), $name), $label);
                        $part = '';
                    } elseif ($inFeatures && $depth < $base) {
                        $inFeatures = false;
                        if ('' !== trim(substr($part, 0, -1), ", \t\r\n")) {
                            throw new UnusableInput($name, 'is no JSON: its list of features holds something else');
                        }
                    }
                }
            }
        }
        fclose($file);
        $l->layer($layer, 0);
        $rest = self::decoded(self::text($around.$part, $name), $name);
        if (!\is_array($rest) || 'FeatureCollection' !== ($rest['type'] ?? null)) {
            $l->kind = 'unknown';

            return;
        }
        self::system($l, $rest['crs'] ?? null, $systems);
    }
}
