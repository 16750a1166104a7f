<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

use Mensura\Exchange\Features\Write\CsvWriter;
use Mensura\Exchange\Features\Write\DxfFeatureWriter;
use Mensura\Exchange\Features\Write\E57Writer;
use Mensura\Exchange\Features\Write\FeatureWriter;
use Mensura\Exchange\Features\Write\GeoJsonWriter;
use Mensura\Exchange\Features\Write\GeoPackageWriter;
use Mensura\Exchange\Features\Write\KmlWriter;
use Mensura\Exchange\Features\Write\LandXmlWriter;
use Mensura\Exchange\Features\Write\LasWriter;
use Mensura\Exchange\Features\Write\PlyWriter;
use Mensura\Exchange\Features\Write\ShapefileWriter;
use Mensura\Exchange\Features\Write\XyzWriter;
use Mensura\Fault\UnusableInput;

/** Writers by the ending of the file they write. */
final class FeatureWriters
{
    private const WRITERS = [
        'csv' => CsvWriter::class, 'xyz' => XyzWriter::class, 'geojson' => GeoJsonWriter::class, 'kml' => KmlWriter::class,
        'dxf' => DxfFeatureWriter::class,
        'shp' => ShapefileWriter::class, 'gpkg' => GeoPackageWriter::class, 'xml' => LandXmlWriter::class, 'ply' => PlyWriter::class,
        'las' => LasWriter::class, 'e57' => E57Writer::class,
    ];

    /** @throws UnusableInput */
    public static function for(string $path): FeatureWriter
    {
        $ending = strtolower(pathinfo($path, \PATHINFO_EXTENSION));
        if ('laz' === $ending) {
            throw new UnusableInput($path, 'LAZ is read only; write LAS');
        }
        $class = self::WRITERS[$ending] ?? null;
        if (null === $class) {
            $known = implode(' ', array_map(static fn (string $e): string => ".$e", array_keys(self::WRITERS)));
            throw new UnusableInput($path, \sprintf('is of no kind that is written; its name ends in one of %s', $known));
        }

        return new $class();
    }
}
