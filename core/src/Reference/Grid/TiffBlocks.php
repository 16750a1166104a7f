<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/**
 * The first image of a TIFF file (TIFF 6.0, and the 64-bit layout) as rows of numbers: strips or tiles, uncompressed, deflate or LZW,
 * predictors 1 to 3, one sample a pixel.
 */
final class TiffBlocks
{
    /** Bytes a strip or tile may hold: a row of a large grid, a large tile. */
    private const MOST_BLOCK = 67_108_864;

    /** Values of one tag: as many as blocks of a large grid. */
    private const MOST_VALUES = 1_000_000;

    /** What is read of the directory: layout, samples, georeference, empty value. */
    private const TAGS = [256, 257, 258, 259, 273, 277, 278, 279, 317, 322, 323, 324, 325, 339, 33550, 33922, 34264, 34735, 42113];

    private const SIZES = [1 => 1, 2 => 1, 3 => 2, 4 => 4, 5 => 8, 6 => 1, 7 => 1, 8 => 2, 9 => 4, 11 => 4, 12 => 8, 16 => 8];

    public readonly int $rows;
    public readonly int $columns;

    /** What stands for no value; null where nothing does. */
    public readonly ?float $empty;

    /** @var array<int, list<int|float>> values by tag */
    private readonly array $tags;

    private readonly bool $little;

    /**
     * @param \Closure(int, int): string $part bytes from a place on, as many as are there
     *
     * @throws UnreadableGrid
     */
    public function __construct(private readonly string $name, private readonly \Closure $part, private readonly int $size)
    {
        $this->little = str_starts_with($part(0, 2), 'II');
        $this->tags = $this->directory();
        $this->columns = (int) $this->one(256);
        $this->rows = (int) $this->one(257);
        $nodata = isset($this->tags[42113]) ? trim(pack('C*', ...array_map('intval', $this->tags[42113])), "\0 ") : '';
        $this->empty = is_numeric($nodata) ? (float) $nodata : null;
    }

    public static function ofBytes(string $name, string $bytes): self
    {
        return new self($name, static fn (int $from, int $length): string => substr($bytes, $from, $length), \strlen($bytes));
    }

    /** @throws UnreadableGrid where a tag that is needed is missing */
    public function one(int $tag, int|float|null $default = null): int|float
    {
        return $this->tags[$tag][0] ?? $default ?? throw new UnreadableGrid(\sprintf('%s: TIFF tag %d is missing', $this->name, $tag));
    }

    /** @return ?list<int|float> */
    public function all(int $tag): ?array
    {
        return $this->tags[$tag] ?? null;
    }

    /**
     * Every row of every block.
     *
     * @return \Generator<array{int, int, list<float>}> row, column it begins with, values
     *
     * @throws UnreadableGrid
     */
    public function rows(): \Generator
    {
        if (1 !== (int) $this->one(277, 1)) {
            throw new UnreadableGrid(\sprintf('%s has %d bands; one is read', $this->name, (int) $this->one(277, 1)));
        }
        [$code, $bits, $isSigned] = $this->sample();
        $compression = (int) $this->one(259, 1);
        $predictor = (int) $this->one(317, 1);
        $tiled = isset($this->tags[324]);
        $width = $tiled ? (int) $this->one(322) : $this->columns;
        $height = $tiled ? (int) $this->one(323) : min($this->rows, (int) $this->one(278, $this->rows));
        $size = intdiv($bits, 8);
        if ($width < 1 || $height < 1 || $width * $height * $size > self::MOST_BLOCK) {
            $words = '%s: a %s of %d by %d samples cannot be read';
            throw new UnreadableGrid(\sprintf($words, $this->name, $tiled ? 'tile' : 'strip', $width, $height));
        }
        $offsets = $this->tags[$tiled ? 324 : 273] ?? [];
        $counts = $this->tags[$tiled ? 325 : 279] ?? [];
        $across = intdiv($this->columns + $width - 1, $width);
        $down = intdiv($this->rows + $height - 1, $height);
        if (\count($offsets) < $across * $down) {
            throw new UnreadableGrid(\sprintf('%s is cut short: %d of %d blocks', $this->name, \count($offsets), $across * $down));
        }
        for ($by = 0; $by < $down; ++$by) {
            for ($bx = 0; $bx < $across; ++$bx) {
                $i = $by * $across + $bx;
                $packed = ($this->part)((int) $offsets[$i], min((int) ($counts[$i] ?? 0), self::MOST_BLOCK));
                // Never more is inflated than the block can hold.
                $most = $width * $height * $size;
                $block = match ($compression) {
                    1 => $packed, 8, 32946 => @gzuncompress($packed, $most), 5 => self::lzw($packed, $most),
                    default => throw new UnreadableGrid(\sprintf(
                        '%s: compression %d is not read (none, LZW and deflate are)', $this->name, $compression,
                    )),
                };
                $tall = $tiled ? $height : min($height, $this->rows - $by * $height);
                if (false === $block || \strlen($block) < $tall * $width * $size) {
                    throw new UnreadableGrid(\sprintf(
                        '%s is damaged, cut short or larger than its layout says in block %d', $this->name, $i + 1,
                    ));
                }
                for ($r = 0; $r < $tall && $by * $height + $r < $this->rows; ++$r) {
                    $bytes = substr($block, $r * $width * $size, $width * $size);
                    $values = self::row($bytes, $code, $size, $predictor, $this->little, $isSigned, $bits);
                    yield [$by * $height + $r, $bx * $width, \array_slice($values, 0, min($width, $this->columns - $bx * $width))];
                }
            }
        }
    }

    /** @return array{string, int, bool} letter of the samples, their bits, whether they have a sign */
    private function sample(): array
    {
        $bits = (int) $this->one(258, 1);
        $format = (int) $this->one(339, 1);
        $little = $this->little;
        $code = match (true) {
            3 === $format && 32 === $bits => $little ? 'g' : 'G', 3 === $format && 64 === $bits => $little ? 'e' : 'E',
            $format < 3 && 8 === $bits => 'C', $format < 3 && 16 === $bits => $little ? 'v' : 'n',
            $format < 3 && 32 === $bits => $little ? 'V' : 'N',
            default => throw new UnreadableGrid(\sprintf('%s: samples of %d bits and format %d are not read', $this->name, $bits, $format)),
        };

        return [$code, $bits, 2 === $format];
    }

    /** @return array<int, list<int|float>> values by tag of the first directory */
    private function directory(): array
    {
        $short = $this->little ? 'v' : 'n';
        $long = $this->little ? 'V' : 'N';
        $head = ($this->part)(0, 16);
        if (\strlen($head) < 16) {
            throw new UnreadableGrid(\sprintf('%s is too short to be a TIFF file', $this->name));
        }
        $isWide = 43 === unpack($short, $head, 2)[1];
        $whole = $isWide ? ($this->little ? 'P' : 'J') : $long;
        [$entrySize, $countSize, $inline] = $isWide ? [20, 8, 8] : [12, 2, 4];
        $at = unpack($whole, $head, $isWide ? 8 : 4)[1];
        if ($at < 8 || $at + $countSize > $this->size) {
            throw new UnreadableGrid(\sprintf('%s is cut short before its directory', $this->name));
        }
        $count = unpack($isWide ? $whole : $short, ($this->part)($at, $countSize))[1];
        if ($count < 0 || $count > 65535 || $at + $countSize + $entrySize * $count > $this->size) {
            throw new UnreadableGrid(\sprintf('%s is cut short in its directory', $this->name));
        }
        $tags = [];
        $directory = ($this->part)($at + $countSize, $entrySize * $count);
        for ($i = 0; $i < $count; ++$i) {
            $entry = $entrySize * $i;
            $tag = unpack($short, $directory, $entry)[1];
            $type = unpack($short, $directory, $entry + 2)[1];
            $n = unpack($whole, $directory, $entry + 4)[1];
            $size = self::SIZES[$type] ?? 0;
            if (0 === $size || !\in_array($tag, self::TAGS, true)) {
                continue;
            }
            if ($n < 0 || $n > self::MOST_VALUES) {
                $words = '%s: tag %d has %d values; at most %d are read';
                throw new UnreadableGrid(\sprintf($words, $this->name, $tag, $n, self::MOST_VALUES));
            }
            $isInline = $size * $n <= $inline;
            $from = $isInline ? 0 : unpack($whole, $directory, $entry + 4 + ($isWide ? 8 : 4))[1];
            if ($from < 0 || $from + $size * $n > $this->size) {
                throw new UnreadableGrid(\sprintf('%s is cut short: tag %d points beyond its end', $this->name, $tag));
            }
            $bytes = $isInline ? substr($directory, $entry + 4 + ($isWide ? 8 : 4), $inline) : ($this->part)($from, $size * $n);
            $code = match ($type) {
                1, 2, 7 => 'C', 6 => 'c', 3, 8 => $short, 4, 9 => $long, 11 => $this->little ? 'g' : 'G',
                12 => $this->little ? 'e' : 'E', 16 => $this->little ? 'P' : 'J', default => null,
            };
            if (null !== $code && $n > 0) {
                $tags[$tag] = array_values(unpack($code.$n, $bytes) ?: []);
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
