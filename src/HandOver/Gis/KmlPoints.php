<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

/** The project's points as KML, in longitudes and latitudes of WGS 84. */
final class KmlPoints extends GisPoints
{
    public static function key(): string
    {
        return 'kml';
    }

    protected function format(): GisFormat
    {
        return new GisFormat('KML', 'kml', 'kml', 'application/vnd.google-earth.kml+xml', 14, 'EPSG:4326', ', in longitude and latitude');
    }
}
