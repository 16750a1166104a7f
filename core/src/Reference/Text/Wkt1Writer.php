<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Method\Methods;

/**
 * Coordinate systems as the older well-known text (OGC 01-009), which files beside shapefiles and geopackages hold: names of methods
 * and parameters as that text and common practice have them.
 */
final class Wkt1Writer
{
    private const DEGREE = 'UNIT["degree",0.0174532925199433]';
    private const NATURAL = [
        8801 => 'latitude_of_origin', 8802 => 'central_meridian', 8805 => 'scale_factor', 8806 => 'false_easting', 8807 => 'false_northing',
    ];
    private const FALSE_ORIGIN = [
        8823 => 'standard_parallel_1', 8824 => 'standard_parallel_2', 8821 => 'latitude_of_origin', 8822 => 'central_meridian',
        8826 => 'false_easting', 8827 => 'false_northing',
    ];
    private const METHODS = [
        9807 => ['Transverse_Mercator', self::NATURAL],
        9801 => ['Lambert_Conformal_Conic_1SP', self::NATURAL],
        9802 => ['Lambert_Conformal_Conic_2SP', self::FALSE_ORIGIN],
        9804 => ['Mercator_1SP', self::NATURAL],
        9809 => ['Oblique_Stereographic', self::NATURAL],
        9810 => ['Polar_Stereographic', self::NATURAL],
        9806 => ['Cassini_Soldner', self::NATURAL],
        9818 => ['Polyconic', self::NATURAL],
        9820 => ['Lambert_Azimuthal_Equal_Area', [
            8801 => 'latitude_of_center', 8802 => 'longitude_of_center', 8806 => 'false_easting', 8807 => 'false_northing',
        ]],
        9822 => ['Albers_Conic_Equal_Area', [
            8823 => 'standard_parallel_1', 8824 => 'standard_parallel_2', 8821 => 'latitude_of_center', 8822 => 'longitude_of_center',
            8826 => 'false_easting', 8827 => 'false_northing',
        ]],
        9812 => ['Hotine_Oblique_Mercator', self::OBLIQUE],
        9815 => ['Hotine_Oblique_Mercator_Azimuth_Center', [8816 => 'false_easting', 8817 => 'false_northing'] + self::OBLIQUE],
    ];
    private const OBLIQUE = [
        8811 => 'latitude_of_center', 8812 => 'longitude_of_center', 8813 => 'azimuth', 8814 => 'rectified_grid_angle',
        8815 => 'scale_factor', 8806 => 'false_easting', 8807 => 'false_northing',
    ];

    /** @return ?string null where the older text has no words for the method */
    public static function write(HorizontalSystem $system): ?string
    {
        if (HorizontalSystem::GEOCENTRIC === $system->kind) {
            return null;
        }
        $conversion = $system->conversion;
        if (null === $conversion || !$system->isProjected()) {
            return self::geographic($system, $system->name, $system->code);
        }
        if (!isset(self::METHODS[$conversion->method])) {
            return null;
        }
        [$method, $parameters] = self::METHODS[$conversion->method];
        $text = '';
        foreach ($parameters as $code => $name) {
            if (!\in_array($code, Methods::METHODS[$conversion->method][1], true)) {
                continue;
            }
            $value = $conversion->values[$code] ?? (\in_array($code, Methods::SCALES, true) ? 1.0 : 0.0);
            $text .= \sprintf(',PARAMETER["%s",%s]', $name, self::number(match (true) {
                \in_array($code, Methods::LENGTHS, true) => $value / $system->unit,
                \in_array($code, Methods::SCALES, true) => $value,
                // A degree from radians and back is whole to thirteen places.
                default => round(rad2deg($value), 13),
            }));
        }
        $base = '' === $system->geodeticName ? $system->datum->name : $system->geodeticName;

        return \sprintf(
            'PROJCS[%s,%s,PROJECTION["%s"]%s,UNIT[%s,%s],AXIS["Easting",EAST],AXIS["Northing",NORTH]%s]', self::quote($system->name),
            self::geographic($system, $base, $system->geodetic), $method, $text, self::quote($system->unitName),
            self::number($system->unit), self::authority($system->code),
        );
    }

    private static function geographic(HorizontalSystem $system, string $name, ?string $code): string
    {
        $datum = $system->datum;
        $e = $datum->ellipsoid;

        return \sprintf(
            'GEOGCS[%s,DATUM[%s,SPHEROID[%s,%s,%s]%s],PRIMEM[%s,%s],%s%s]', self::quote($name),
            self::quote(strtr((string) preg_replace('/ ensemble$/', '', $datum->name), ' ', '_')), self::quote($e->name),
            self::number($e->a),
            is_infinite($e->inverseFlattening) ? '0' : self::number($e->inverseFlattening), self::authority($datum->code),
            self::quote($datum->primeMeridianName), self::number($datum->primeMeridian), self::DEGREE, self::authority($code),
        );
    }

    private static function authority(int|string|null $code): string
    {
        return 1 === preg_match('/^(?:EPSG:)?(\d+)$/', (string) $code, $m) ? \sprintf(',AUTHORITY["EPSG","%s"]', $m[1]) : '';
    }

    private static function quote(string $text): string
    {
        return '"'.strtr($text, '"', "'").'"';
    }

    /** As few figures as give the same number back. */
    private static function number(float $value): string
    {
        $whole = (int) $value;

        return (float) $whole === $value ? (string) $whole : (string) json_encode($value, \JSON_THROW_ON_ERROR);
    }
}
