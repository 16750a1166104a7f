<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

/** Writes small NTv2 grids of one constant shift (NTv2 Developer's Guide, 1995: records of 16 bytes, little-endian). */
final class Ntv2
{
    /**
     * Nodes every degree.
     *
     * @param array{float, float, float, float} $area  south, west, north, east in degrees
     * @param array{float, float}               $shift seconds to add to latitude and to east longitude
     * @param array{float, float}               $from  axes of the ellipsoid it leads from
     * @param array{float, float}               $to    axes of the ellipsoid it leads to
     */
    public static function constant(
        array $area,
        array $shift,
        array $from = [6377397.155, 6356078.963],
        array $to = [6378137.0, 6356752.314],
    ): string {
        [$south, $west, $north, $east] = $area;
        $rows = (int) ($north - $south) + 1;
        $columns = (int) ($east - $west) + 1;
        $int = static fn (string $key, int $value): string => str_pad($key, 8).pack('VV', $value, 0);
        $text = static fn (string $key, string $value): string => str_pad($key, 8).str_pad($value, 8);
        $number = static fn (string $key, float $value): string => str_pad($key, 8).pack('e', $value);

        return $int('NUM_OREC', 11).$int('NUM_SREC', 11).$int('NUM_FILE', 1).$text('GS_TYPE', 'SECONDS')
            .$text('VERSION', 'TEST').$text('SYSTEM_F', 'HERE').$text('SYSTEM_T', 'THERE')
            .$number('MAJOR_F', $from[0]).$number('MINOR_F', $from[1]).$number('MAJOR_T', $to[0]).$number('MINOR_T', $to[1])
            .$text('SUB_NAME', 'ONE').$text('PARENT', 'NONE').$text('CREATED', '').$text('UPDATED', '')
            .$number('S_LAT', 3600.0 * $south).$number('N_LAT', 3600.0 * $north).$number('E_LONG', -3600.0 * $east)
                .$number('W_LONG', -3600.0 * $west)
            .$number('LAT_INC', 3600.0).$number('LONG_INC', 3600.0).$int('GS_COUNT', $rows * $columns)
            .str_repeat(pack('g4', $shift[0], -$shift[1], 0.01, 0.01), $rows * $columns).$text('END', '');
    }
}
