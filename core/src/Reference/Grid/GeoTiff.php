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

    /** Bytes a strip or tile may hold: a row of a large grid, a large tile. */
    private const MOST_BLOCK = 67_108_864;

    /** Values of one tag: as many as blocks of a large grid. */
    private const MOST_VALUES = 1_000_000;

    /** What is read of the directory: layout, samples, georeference, empty value. */
    private const TAGS = [256, 257, 258, 259, 273, 277, 278, 279, 317, 322, 323, 324, 325, 339, 33550, 33922, 34735, 42113];

    private const SIZES = [1 => 1, 2 => 1, 3 => 2, 4 => 4, 5 => 8, 6 => 1, 7 => 1, 8 => 2, 9 => 4, 11 => 4, 12 => 8, 16 => 8];

    /** @throws UnreadableGrid */
    public static function read(string $name, string $bytes): GeoidGrid
    {
        $little = str_starts_with($bytes, 'II');
        $tags = self::tags($name, $bytes, $little);
        $one = static fn (int $tag, int|float|null $default = null): int|float => $tags[$tag][0] ?? $default ??
            throw new UnreadableGrid(\sprintf('%s: TIFF tag %d is missing', $name, $tag));
        $columns = (int) $one(256);
        $rows = (int) $one(257);
        $bits = (int) $one(258, 1);
        $format = (int) $one(339, 1);
        $compression = (int) $one(259, 1);
        $predictor = (int) $one(317, 1);
        if (1 !== (int) $one(277, 1)) {
            throw new UnreadableGrid(\sprintf('%s has %d bands; a geoid has one', $name, (int) $one(277, 1)));
        }
        $scale = $tags[33550] ?? null;
        $tie = $tags[33922] ?? null;
        if (null === $scale || null === $tie || \count($tie) < 6) {
            throw new UnreadableGrid(\sprintf('%s is not georeferenced (no pixel scale and tie point)', $name));
        }
        $keys = array_chunk($tags[34735] ?? [], 4);
        $model = 2;
        $point = false;
        foreach (\array_slice($keys, 1) as $key) {
            if (1024 === (int) $key[0]) {
                $model = (int) $key[3];
            }
            $point = $point || (1025 === (int) $key[0] && 2 === (int) $key[3]);
        }
        if (2 !== $model) {
            throw new UnreadableGrid(\sprintf('%s is not in latitude and longitude', $name));
        }
        $code = match (true) {
            3 === $format && 32 === $bits => $little ? 'g' : 'G',
            3 === $format && 64 === $bits => $little ? 'e' : 'E',
            2 === $format && 16 === $bits, 1 === $format && 16 === $bits => $little ? 'v' : 'n',
            2 === $format && 32 === $bits, 1 === $format && 32 === $bits => $little ? 'V' : 'N',
            default => throw new UnreadableGrid(\sprintf('%s: samples of %d bits and format %d are not read', $name, $bits, $format)),
        };
        if ($rows < 2 || $columns < 2 || $rows * $columns > self::MOST_NODES) {
            throw new UnreadableGrid(\sprintf(
                '%s: %d rows of %d is not a grid that can be read (at most %d million nodes)', $name, $rows, $columns,
                intdiv(self::MOST_NODES, 1_000_000),
            ));
        }
        $tiled = isset($tags[324]);
        $blockWidth = $tiled ? (int) $one(322) : $columns;
        $blockHeight = $tiled ? (int) $one(323) : min($rows, (int) $one(278, $rows));
        $size = intdiv($bits, 8);
        if ($blockWidth < 1 || $blockHeight < 1 || $blockWidth * $blockHeight * $size > self::MOST_BLOCK) {
            throw new UnreadableGrid(\sprintf(
                '%s: a %s of %d by %d samples cannot be read', $name, $tiled ? 'tile' : 'strip', $blockWidth,
                $blockHeight,
            ));
        }
        $offsets = $tags[$tiled ? 324 : 273] ?? [];
        $counts = $tags[$tiled ? 325 : 279] ?? [];
        $across = intdiv($columns + $blockWidth - 1, $blockWidth);
        $down = intdiv($rows + $blockHeight - 1, $blockHeight);
        if (\count($offsets) < $across * $down) {
            throw new UnreadableGrid(\sprintf('%s is cut short: %d of %d blocks', $name, \count($offsets), $across * $down));
        }
        $nodata = isset($tags[42113]) ? trim(pack('C*', ...array_map('intval', $tags[42113])), "\0 ") : '';
        $empty = is_numeric($nodata) ? (float) $nodata : null;
        $lines = array_fill(0, $rows, '');
        for ($by = 0; $by < $down; ++$by) {
            for ($bx = 0; $bx < $across; ++$bx) {
                $i = $by * $across + $bx;
                $block = substr($bytes, (int) $offsets[$i], (int) ($counts[$i] ?? 0));
                // Never more is inflated than the block can hold.
                $most = $blockWidth * $blockHeight * $size;
                $block = match ($compression) {
                    1 => $block,
                    8, 32946 => @gzuncompress($block, $most),
                    5 => self::lzw($block, $most),
                    default => throw new UnreadableGrid(\sprintf(
                        '%s: compression %d is not read (none, LZW and deflate are)', $name, $compression,
                    )),
                };
                $height = $tiled ? $blockHeight : min($blockHeight, $rows - $by * $blockHeight);
                if (false === $block || \strlen($block) < $height * $blockWidth * $size) {
                    throw new UnreadableGrid(\sprintf(
                        '%s is damaged, cut short or larger than its layout says in block %d', $name, $i + 1,
                    ));
                }
                for ($r = 0; $r < $height; ++$r) {
                    $row = $by * $blockHeight + $r;
                    if ($row >= $rows) {
                        break;
                    }
                    $values = self::row(
                        substr($block, $r * $blockWidth * $size, $blockWidth * $size), $code, $size, $predictor,
                        $little, 2 === $format, $bits,
                    );
                    $values = \array_slice($values, 0, min($blockWidth, $columns - $bx * $blockWidth));
                    if (null !== $empty) {
                        foreach ($values as $k => $value) {
                            if ($value === $empty || abs($value - $empty) < 1e-6 * abs($empty)) {
                                $values[$k] = GeoidGrid::EMPTY;
                            }
                        }
                    }
                    $lines[$row] .= pack('G*', ...$values);
                }
            }
        }
        $dLon = (float) $scale[0];
        $dLat = (float) $scale[1];
        $half = $point ? 0.0 : 0.5;
        $west = (float) $tie[3] - ((float) $tie[0] - $half) * $dLon;
        $north = (float) $tie[4] + ((float) $tie[1] - $half) * $dLat;

        return new GeoidGrid($name, $north - ($rows - 1) * $dLat, $west, $dLat, $dLon, $rows, $columns, implode('', array_reverse($lines)));
    }

    /** @return array<int, list<int|float>> values by tag of the first directory */
    private static function tags(string $name, string $bytes, bool $little): array
    {
        $short = $little ? 'v' : 'n';
        $long = $little ? 'V' : 'N';
        if (\strlen($bytes) < 16) {
            throw new UnreadableGrid(\sprintf('%s is too short to be a TIFF file', $name));
        }
        $at = unpack($long, $bytes, 4)[1];
        if ($at + 2 > \strlen($bytes)) {
            throw new UnreadableGrid(\sprintf('%s is cut short before its directory', $name));
        }
        $count = unpack($short, $bytes, $at)[1];
        if ($at + 2 + 12 * $count > \strlen($bytes)) {
            throw new UnreadableGrid(\sprintf('%s is cut short in its directory', $name));
        }
        $tags = [];
        for ($i = 0; $i < $count; ++$i) {
            $entry = $at + 2 + 12 * $i;
            $tag = unpack($short, $bytes, $entry)[1];
            $type = unpack($short, $bytes, $entry + 2)[1];
            $n = unpack($long, $bytes, $entry + 4)[1];
            $size = self::SIZES[$type] ?? 0;
            if (0 === $size || !\in_array($tag, self::TAGS, true)) {
                continue;
            }
            if ($n > self::MOST_VALUES) {
                throw new UnreadableGrid(\sprintf('%s: tag %d has %d values; at most %d are read', $name, $tag, $n, self::MOST_VALUES));
            }
            $from = $size * $n <= 4 ? $entry + 8 : unpack($long, $bytes, $entry + 8)[1];
            if ($from + $size * $n > \strlen($bytes)) {
                throw new UnreadableGrid(\sprintf('%s is cut short: tag %d points beyond its end', $name, $tag));
            }
            $code = match ($type) {
                1, 2, 7 => 'C', 6 => 'c', 3, 8 => $short, 4, 9 => $long, 11 => $little ? 'g' : 'G',
                12 => $little ? 'e' : 'E', default => null,
            };
            if (null !== $code && $n > 0) {
                $tags[$tag] = array_values(unpack($code.$n, $bytes, $from) ?: []);
            }
        }

        return $tags;
    }

    /** @return list<float> the samples of one row, the predictor undone */
    private static function row(string $bytes, string $code, int $size, int $predictor, bool $little, bool $signed, int $bits): array
    {
        if (3 === $predictor) {
            // Bytes of the samples are split by significance and differenced (TIFF Technical Note 3).
            $length = \strlen($bytes);
            $sum = 0;
            $plain = '';
            for ($i = 0; $i < $length; ++$i) {
                $sum = ($sum + \ord($bytes[$i])) & 255;
                $plain .= \chr($sum);
            }
            $n = intdiv($length, $size);
            $out = '';
            for ($i = 0; $i < $n; ++$i) {
                for ($b = 0; $b < $size; ++$b) {
                    $out .= $plain[($little ? $size - 1 - $b : $b) * $n + $i];
                }
            }
            $bytes = $out;
        }
        $values = array_values(unpack($code.'*', $bytes) ?: []);
        if (2 === $predictor && \is_int($values[0] ?? null)) {
            $mask = (1 << $bits) - 1;
            for ($i = 1, $n = \count($values); $i < $n; ++$i) {
                $values[$i] = ((int) $values[$i] + (int) $values[$i - 1]) & $mask;
            }
        }
        if ($signed) {
            foreach ($values as $i => $value) {
                $values[$i] = $value >= 1 << ($bits - 1) ? $value - (1 << $bits) : $value;
            }
        }

        return array_map('floatval', $values);
    }

    /** TIFF 6.0, section 13; as far as so many bytes. */
    private static function lzw(string $bytes, int $most): string
    {
        $out = '';
        /** @var array<int, string> $table */
        $table = [];
        $buffer = 0;
        $held = 0;
        $width = 9;
        /** @var int<258, max> $next */
        $next = 258;
        /** @var ?string $previous */
        $previous = null;
        $length = \strlen($bytes);
        for ($i = 0; $i < $length && \strlen($out) <= $most;) {
            while ($held < $width && $i < $length) {
                $buffer = ($buffer << 8) | \ord($bytes[$i++]);
                $held += 8;
            }
            if ($held < $width) {
                break;
            }
            $code = ($buffer >> ($held - $width)) & ((1 << $width) - 1);
            $held -= $width;
            $buffer &= (1 << $held) - 1;
            if (257 === $code) {
                break;
            }
            if (256 === $code) {
                $table = [];
                $width = 9;
                $next = 258;
                $previous = null;
                continue;
            }
            $entry = $code < 256 ? \chr($code) : ($table[$code] ?? (null === $previous ? '' : $previous.$previous[0]));
            if ('' === $entry) {
                break;
            }
            $out .= $entry;
            if (null !== $previous) {
                $table[$next++] = $previous.$entry[0];
                $width = $next >= 2047 ? 12 : ($next >= 1023 ? 11 : ($next >= 511 ? 10 : 9));
            }
            $previous = $entry;
        }

        return $out;
    }
}
