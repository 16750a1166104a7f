<?php

declare(strict_types=1);

namespace Mensura\Exchange\GeoTiff;

/**
 * Grids as GeoTIFF: TIFF 6.0, little endian, a strip a row block, deflate (Adobe, 8); place and system after OGC 19-008r4 (GeoTIFF 1.1),
 * a pixel an area. Rows run south from the north-west corner; metres.
 */
final class GeoTiffWriter
{
    private const NODATA = -9999.0;
    private const ROWS = 64;
    private const SHORT = 3;
    private const LONG = 4;
    private const DOUBLE = 12;
    private const ASCII = 2;

    /**
     * Heights as 32-bit numbers; cells without one are -9999, which is said.
     *
     * @param list<?float> $h by row
     * @param ?int         $system projected system, EPSG code; null where there is none
     */
    public static function heights(
        string $path, int $columns, int $rows, array $h, float $west, float $north, float $cell, ?int $system,
    ): void {
        $strips = [];
        for ($row = 0; $row < $rows; $row += self::ROWS) {
            $part = \array_slice($h, $row * $columns, self::ROWS * $columns);
            $strips[] = pack('g*', ...array_map(static fn (?float $v): float => $v ?? self::NODATA, $part));
        }
        self::write($path, $columns, $rows, $strips, [
            258 => [self::SHORT, [32]], 262 => [self::SHORT, [1]], 277 => [self::SHORT, [1]], 339 => [self::SHORT, [3]],
            42113 => [self::ASCII, [self::NODATA.'']],
        ], $west, $north, $cell, $system);
    }

    /**
     * Colours with a fourth value that says whether there is an image: 255, or 0 where there is none.
     *
     * @param string $rgba bytes by row
     */
    public static function colours(
        string $path, int $columns, int $rows, string $rgba, float $west, float $north, float $cell, ?int $system,
    ): void {
        self::write($path, $columns, $rows, str_split($rgba, max(1, self::ROWS * $columns * 4)), [
            258 => [self::SHORT, [8, 8, 8, 8]], 262 => [self::SHORT, [2]], 277 => [self::SHORT, [4]], 338 => [self::SHORT, [2]],
        ], $west, $north, $cell, $system);
    }

    /**
     * @param list<string>                                  $strips
     * @param array<int, array{int, list<int|float|string>}> $tags
     */
    private static function write(
        string $path, int $columns, int $rows, array $strips, array $tags, float $west, float $north, float $cell, ?int $system,
    ): void {
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, "II*\0".pack('V', 0));
        $offsets = $counts = [];
        $at = 8;
        foreach ($strips as $strip) {
            $packed = (string) gzcompress($strip, 6);
            $packed .= 1 === \strlen($packed) % 2 ? "\0" : '';
            fwrite($file, $packed);
            [$offsets[], $counts[]] = [$at, \strlen($packed)];
            $at += \strlen($packed);
        }
        // Model type projected, a pixel is an area, and the system; one of its own is said to be user-defined.
        $keys = [1, 1, 1, 3, 1024, 0, 1, 1, 1025, 0, 1, 1, 3072, 0, 1, $system ?? 32767];
        $tags += [
            256 => [self::LONG, [$columns]], 257 => [self::LONG, [$rows]], 259 => [self::SHORT, [8]], 273 => [self::LONG, $offsets],
            278 => [self::LONG, [self::ROWS]], 279 => [self::LONG, $counts], 284 => [self::SHORT, [1]],
            33550 => [self::DOUBLE, [$cell, $cell, 0.0]], 33922 => [self::DOUBLE, [0.0, 0.0, 0.0, $west, $north, 0.0]],
            34735 => [self::SHORT, $keys],
        ];
        ksort($tags);
        $directory = pack('v', \count($tags));
        $more = '';
        $next = $at + 2 + 12 * \count($tags) + 4;
        foreach ($tags as $number => [$type, $values]) {
            $bytes = match ($type) {
                self::SHORT => pack('v*', ...$values), self::LONG => pack('V*', ...$values), self::DOUBLE => pack('e*', ...$values),
                default => $values[0]."\0",
            };
            $count = self::ASCII === $type ? \strlen($bytes) : \count($values);
            if (\strlen($bytes) > 4) {
                $directory .= pack('vvVV', $number, $type, $count, $next + \strlen($more));
                $more .= $bytes.(1 === \strlen($bytes) % 2 ? "\0" : '');
            } else {
                $directory .= pack('vvV', $number, $type, $count).str_pad($bytes, 4, "\0");
            }
        }
        fwrite($file, $directory.pack('V', 0).$more);
        fseek($file, 4);
        fwrite($file, pack('V', $at));
        if (!fclose($file)) {
            throw new \RuntimeException($path.' cannot be written; is the disk full?');
        }
    }
}
