<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/**
 * GTX binary geoid grids (NOAA VDatum): south, west, steps as big-endian doubles, rows and columns, big-endian floats
 * from the south-west.
 */
final class Gtx
{
    /** @throws UnreadableGrid */
    public static function read(string $name, string $bytes): GeoidGrid
    {
        if (\strlen($bytes) < 40) {
            throw new UnreadableGrid(\sprintf('%s is too short to be a geoid grid (GTX, ISG text or GeoTIFF)', $name));
        }
        /** @var array{s: float, w: float, y: float, x: float, r: int, c: int} $h */
        $h = unpack('Es/Ew/Ey/Ex/Nr/Nc', $bytes);
        $plausible = abs($h['s']) <= 90.0 && abs($h['w']) <= 360.0 && $h['y'] > 0.0 && $h['y'] < 90.0 && $h['x'] > 0.0 && $h['x'] < 180.0;
        if (!$plausible || $h['r'] < 2 || $h['c'] < 2) {
            throw new UnreadableGrid(\sprintf('%s is not a geoid grid known here (GTX, ISG text or GeoTIFF)', $name));
        }
        $need = 40 + 4 * $h['r'] * $h['c'];
        if (\strlen($bytes) < $need) {
            throw new UnreadableGrid(\sprintf(
                '%s is cut short: %d bytes where %d rows of %d need %d', $name, \strlen($bytes), $h['r'], $h['c'],
                $need,
            ));
        }

        return new GeoidGrid($name, $h['s'], $h['w'], $h['y'], $h['x'], $h['r'], $h['c'], substr($bytes, 40, $need - 40));
    }

    public static function write(GeoidGrid $grid): string
    {
        return pack('E4N2', $grid->south, $grid->west, $grid->dLat, $grid->dLon, $grid->rows, $grid->columns).$grid->values;
    }

    /** Bytes a GTX file of so many nodes takes. */
    public static function size(int $rows, int $columns): int
    {
        return 40 + 4 * $rows * $columns;
    }
}
