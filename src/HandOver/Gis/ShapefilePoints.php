<?php

declare(strict_types=1);

namespace App\HandOver\Gis;

/** The project's points as a shapefile, in a zip with everything that belongs to it. */
final class ShapefilePoints extends GisPoints
{
    public static function key(): string
    {
        return 'shapefile';
    }

    protected function format(): GisFormat
    {
        return new GisFormat('Shapefile', 'shp', 'zip', 'application/zip', 12, remark: ', zipped with its system');
    }
}
