<?php

declare(strict_types=1);

namespace Mensura\Exchange\GeoJson;

use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;

/** The first line of a GeoJSON (RFC 7946 geometry, in project coordinates): a geometry, a feature or a collection. */
final class LineFile
{
    private const FARTHEST = 1e9;

    /** @throws UnusableInput naming the member */
    public static function read(string $json): SectionLine
    {
        try {
            $document = json_decode(preg_replace('/^\xEF\xBB\xBF/', '', $json) ?? '', true, 64, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw new UnusableInput('', \sprintf('not JSON (%s)', lcfirst($e->getMessage())));
        }
        $places = self::places($document, '');
        if (null === $places) {
            throw new UnusableInput('', 'holds no LineString');
        }
        [$coordinates, $path] = $places;
        $x = $y = [];
        foreach (\is_array($coordinates) ? array_values($coordinates) : [] as $k => $position) {
            foreach ([0, 1] as $c) {
                $value = \is_array($position) ? $position[$c] ?? null : null;
                if (!\is_int($value) && !\is_float($value) || !is_finite((float) $value) || abs($value) > self::FARTHEST) {
                    throw new UnusableInput("{$path}[$k]", 'must be [easting, northing]');
                }
            }
            $x[] = (float) $position[0];
            $y[] = (float) $position[1];
        }
        try {
            return new SectionLine($x, $y);
        } catch (UnusableInput $e) {
            throw new UnusableInput($path, $e->reason);
        }
    }

    /** @return ?array{mixed, string} coordinates and their path */
    private static function places(mixed $object, string $path): ?array
    {
        if (!\is_array($object)) {
            return null;
        }
        switch ($object['type'] ?? null) {
            case 'LineString':
                return [$object['coordinates'] ?? null, ltrim("$path.coordinates", '.')];
            case 'MultiLineString':
                $first = \is_array($object['coordinates'] ?? null) ? $object['coordinates'][0] ?? null : null;

                return [$first, ltrim("$path.coordinates[0]", '.')];
            case 'Feature':
                return self::places($object['geometry'] ?? null, "$path.geometry");
            case 'FeatureCollection':
                foreach (\is_array($object['features'] ?? null) ? array_values($object['features']) : [] as $i => $feature) {
                    if (null !== $found = self::places($feature, "$path.features[$i]")) {
                        return $found;
                    }
                }
        }

        return null;
    }
}
