<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

/** The project's points as GeoJSON. */
final class GeoJsonPoints extends GisPoints
{
    public static function key(): string
    {
        return 'geojson';
    }

    protected function format(): GisFormat
    {
        return new GisFormat('GeoJSON', 'geojson', 'geojson', 'application/geo+json', 13);
    }
}
