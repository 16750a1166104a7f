<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/**
 * Single-band GeoTIFF geoid grids in geographic coordinates (OGC GeoTIFF 1.1 over TIFF 6.0): 16- and 32-bit whole numbers
 * and 32- and 64-bit floats, strips or tiles, uncompressed, deflate or LZW, predictors 1 to 3, area and point pixels.
 */
final class GeoTiff
{
    /** Nodes of the largest grid read: a global model at 2.5 minutes has 37 million. */
    private const MOST_NODES = 40_000_000;

    /** @throws UnreadableGrid */
    public static function read(string $name, string $bytes): GeoidGrid
    {
        $tiff = TiffBlocks::ofBytes($name, $bytes);
        $columns = $tiff->columns;
        $rows = $tiff->rows;
        if (1 !== (int) $tiff->one(277, 1)) {
            throw new UnreadableGrid(\sprintf('%s has %d bands; a geoid has one', $name, (int) $tiff->one(277, 1)));
        }
        $scale = $tiff->all(33550);
        $tie = $tiff->all(33922);
        if (null === $scale || null === $tie || \count($tie) < 6) {
            throw new UnreadableGrid(\sprintf('%s is not georeferenced (no pixel scale and tie point)', $name));
        }
        $model = 2;
        $point = false;
        foreach (\array_slice(array_chunk($tiff->all(34735) ?? [], 4), 1) as $key) {
            if (1024 === (int) $key[0]) {
                $model = (int) ($key[3] ?? 0);
            }
            $point = $point || (1025 === (int) $key[0] && 2 === (int) ($key[3] ?? 0));
        }
        if (2 !== $model) {
            throw new UnreadableGrid(\sprintf('%s is not in latitude and longitude', $name));
        }
        if ($rows < 2 || $columns < 2 || $rows * $columns > self::MOST_NODES) {
            throw new UnreadableGrid(\sprintf(
                '%s: %d rows of %d is not a grid that can be read (at most %d million nodes)', $name, $rows, $columns,
                intdiv(self::MOST_NODES, 1_000_000),
            ));
        }
        $empty = $tiff->empty;
        $lines = array_fill(0, $rows, '');
        foreach ($tiff->rows() as [$row, , $values]) {
            if (null !== $empty) {
                foreach ($values as $k => $value) {
                    if ($value === $empty || abs($value - $empty) < 1e-6 * abs($empty)) {
                        $values[$k] = GeoidGrid::EMPTY;
                    }
                }
            }
            $lines[$row] .= pack('G*', ...$values);
        }
        $dLon = (float) $scale[0];
        $dLat = (float) $scale[1];
        $half = $point ? 0.0 : 0.5;
        $west = (float) $tie[3] - ((float) $tie[0] - $half) * $dLon;
        $north = (float) $tie[4] + ((float) $tie[1] - $half) * $dLat;

        return new GeoidGrid($name, $north - ($rows - 1) * $dLat, $west, $dLat, $dLon, $rows, $columns, implode('', array_reverse($lines)));
    }
}
