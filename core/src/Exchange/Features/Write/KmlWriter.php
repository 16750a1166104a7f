<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/** KML (OGC 12-007r2): a folder a layer, longitudes and latitudes of WGS 84. */
final class KmlWriter implements FeatureWriter
{
    public function write(FeatureSet $set, string $path): array
    {
        if ('EPSG:4326' !== $set->crs) {
            $words = 'KML holds longitudes and latitudes of WGS 84: name the system with --from-crs, or --to-crs EPSG:4326';
            throw new UnusableInput('', $words);
        }
        $lost = new Lost();
        $naming = $set->naming();
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<kml xmlns=\"http://www.opengis.net/kml/2.2\"><Document>\n");
        foreach ($set->layers() as $layer) {
            fwrite($file, '<Folder><name>'.Plain::xml($layer)."</name>\n");
            foreach ($set->features as $f) {
                if ($f->layer === $layer) {
                    fwrite($file, self::placemark($f, $naming));
                    if (Feature::FACE === $f->kind) {
                        $lost->count('faces, written as polygons');
                    }
                }
            }
            fwrite($file, "</Folder>\n");
        }
        fwrite($file, "</Document></kml>\n");
        fclose($file);

        return $lost->all();
    }

    private static function placemark(Feature $f, ?string $naming): string
    {
        $text = '<Placemark>';
        $name = null === $naming ? null : $f->properties[$naming] ?? null;
        if (null !== $name) {
            $text .= '<name>'.Plain::xml(Plain::text($name)).'</name>';
        }
        $data = '';
        foreach ($f->properties as $key => $value) {
            if (null !== $value && ((string) $key !== $naming || 'name' !== strtolower((string) $key))) {
                $data .= '<Data name="'.Plain::xml((string) $key).'"><value>'.Plain::xml(Plain::text($value)).'</value></Data>';
            }
        }
        $text .= '' === $data ? '' : "<ExtendedData>$data</ExtendedData>";
        $shapes = array_map(static fn (array $rings): string => self::shape($f, $rings), $f->parts);

        return $text.(1 === \count($shapes) ? $shapes[0] : '<MultiGeometry>'.implode('', $shapes).'</MultiGeometry>')."</Placemark>\n";
    }

    /** @param list<list<array{float, float, ?float}>> $rings */
    private static function shape(Feature $f, array $rings): string
    {
        $mode = $f->hasHeights() ? '<altitudeMode>absolute</altitudeMode>' : '';
        $places = static fn (array $ring): string => '<coordinates>'.implode(' ', array_map(
            static fn (array $p): string => implode(',', array_map(Plain::number(...), null === $p[2] ? [$p[0], $p[1]] : $p)), $ring,
        )).'</coordinates>';
        if (Feature::POINT === $f->kind) {
            return "<Point>$mode".$places($rings[0]).'</Point>';
        }
        if (Feature::LINE === $f->kind) {
            return "<LineString>$mode".$places($rings[0]).'</LineString>';
        }
        $text = "<Polygon>$mode";
        foreach ($rings as $k => $ring) {
            $side = 0 === $k ? 'outerBoundaryIs' : 'innerBoundaryIs';
            $text .= "<$side><LinearRing>".$places($ring)."</LinearRing></$side>";
        }

        return $text.'</Polygon>';
    }
}
