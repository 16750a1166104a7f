<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

/** The project's points as a GeoPackage. */
final class GeoPackagePoints extends GisPoints
{
    public static function key(): string
    {
        return 'gpkg';
    }

    protected function format(): GisFormat
    {
        return new GisFormat('GeoPackage', 'gpkg', 'gpkg', 'application/geopackage+sqlite3', 11);
    }
}
