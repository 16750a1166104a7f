<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/** Reads a geoid file of any kind known here, recognised by its contents: GTX, ISG text or GeoTIFF. */
final class GeoidFile
{
    /** @throws UnreadableGrid */
    public static function read(string $name, string $bytes): GeoidGrid
    {
        if (str_starts_with($bytes, "II*\0") || str_starts_with($bytes, "MM\0*")) {
            return GeoTiff::read($name, $bytes);
        }
        if (str_contains(substr($bytes, 0, 4096), 'begin_of_head') || str_contains(substr($bytes, 0, 65536), 'end_of_head')) {
            return Isg::read($name, $bytes);
        }

        return Gtx::read($name, $bytes);
    }
}
