<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;

/** GeoJSON (RFC 7946); in another system than longitude and latitude of WGS 84 with the crs member of 2008, which readers know. */
final class GeoJsonWriter implements FeatureWriter
{
    private const FLAGS = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;
    private const TYPES = [
        Feature::POINT => 'Point', Feature::LINE => 'LineString', Feature::POLYGON => 'Polygon', Feature::FACE => 'Polygon',
    ];

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $layers = $set->layers();
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, '{"type":"FeatureCollection"');
        if (1 === \count($layers)) {
            fwrite($file, ',"name":'.json_encode($layers[0], self::FLAGS | \JSON_INVALID_UTF8_SUBSTITUTE));
        } elseif (\count($layers) > 1) {
            $lost->say('layers, written as the property layer');
        }
        if (null !== $set->crs && 'EPSG:4326' !== $set->crs) {
            $urn = 'urn:ogc:def:crs:'.str_replace(':', '::', $set->crs);
            fwrite($file, ',"crs":{"type":"name","properties":{"name":'.json_encode($urn, self::FLAGS).'}}');
        } elseif (null === $set->crs) {
            $lost->say('its coordinate system is not known; readers take coordinates without one for longitudes and latitudes');
        }
        fwrite($file, ',"features":[');
        foreach ($set->features as $i => $f) {
            if (Feature::FACE === $f->kind) {
                $lost->count('faces, written as polygons');
            }
            $properties = $f->properties + (\count($layers) > 1 ? ['layer' => $f->layer] : []);
            fwrite($file, (0 === $i ? "\n" : ",\n").'{"type":"Feature","properties":'.json_encode(
                (object) $properties, self::FLAGS | \JSON_INVALID_UTF8_SUBSTITUTE,
            ).',"geometry":'.json_encode(self::geometry($f), self::FLAGS).'}');
        }
        fwrite($file, "\n]}\n");
        fclose($file);

        return $lost->all();
    }

    /** @return array<string, mixed> */
    private static function geometry(Feature $f): array
    {
        $ring = static fn (array $ring): array => array_map(
            static fn (array $p): array => null === $p[2] ? [$p[0], $p[1]] : $p, $ring,
        );
        $parts = array_map(static fn (array $rings): array => match ($f->kind) {
            Feature::POINT => $ring($rings[0])[0], Feature::LINE => $ring($rings[0]), default => array_map($ring, $rings),
        }, $f->parts);
        $type = self::TYPES[$f->kind];

        return 1 === \count($parts) ? ['type' => $type, 'coordinates' => $parts[0]] : ['type' => 'Multi'.$type, 'coordinates' => $parts];
    }
}
