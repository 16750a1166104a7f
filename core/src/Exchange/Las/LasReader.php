<?php

declare(strict_types=1);

namespace Mensura\Exchange\Las;

use Mensura\Fault\UnusableInput;

/** Points of LAS 1.0 to 1.4 (ASPRS LAS specification 1.4 R15, tables 3 and 7 to 20), block by block. Metres as the file holds them. */
final class LasReader
{
    /** Bytes of the shortest record of each point format. */
    private const SIZES = [20, 28, 26, 34, 57, 63, 30, 36, 38, 59, 67];
    /** Where the colours of a record begin, by point format (tables 9 to 20). */
    private const COLOURS = [2 => 20, 3 => 28, 5 => 28, 7 => 30, 8 => 30, 10 => 30];
    private const BLOCK = 8000;
    /** The lowest header there is, version 1.0. */
    private const HEADER = 227;

    public readonly int $count;
    public readonly int $format;
    public readonly bool $isPacked;
    /** @var array{float, float, float} */
    public readonly array $scale;
    /** @var array{float, float, float} */
    public readonly array $offset;
    /** Byte the records begin at, and bytes of each. */
    public readonly int $start;
    public readonly int $size;

    /**
     * @param resource $stream at its begin
     *
     * @throws UnusableInput
     */
    public function __construct(private $stream, private readonly string $name)
    {
        $head = (string) fread($stream, 375);
        if (!str_starts_with($head, 'LASF') || \strlen($head) < self::HEADER) {
            throw new UnusableInput($name, 'is no LAS file, or is cut off in its header');
        }
        $this->start = self::whole($head, 96, 4);
        $format = \ord($head[104]);
        $this->isPacked = $format >= 128 || 0 !== ($format & 64);
        $this->format = $format & 63;
        $this->size = self::whole($head, 105, 2);
        $old = self::whole($head, 107, 4);
        $new = \ord($head[25]) >= 4 && \strlen($head) >= 255 ? self::whole($head, 247, 8) : 0;
        $this->count = $new > 0 ? $new : $old;
        $values = array_values((array) unpack('e6', substr($head, 131, 48)));
        $this->scale = [(float) $values[0], (float) $values[1], (float) $values[2]];
        $this->offset = [(float) $values[3], (float) $values[4], (float) $values[5]];
        foreach ($this->scale as $k => $scale) {
            if (!is_finite($scale) || 0.0 === $scale || !is_finite($this->offset[$k])) {
                throw new UnusableInput($name, 'its header has no usable scale or offset of coordinates');
            }
        }
        if (!isset(self::SIZES[$this->format]) || $this->size < self::SIZES[$this->format]) {
            $words = \sprintf('its point format %d with records of %d bytes is none of LAS', $this->format, $this->size);
            throw new UnusableInput($name, $words);
        }
    }

    /** @return array{int, int} byte of a record that holds the class, and its bits of it (tables 8 and 16) */
    public function classAt(): array
    {
        return $this->format > 5 ? [16, 255] : [15, 31];
    }

    /**
     * Coordinates and classes of all points, in blocks.
     *
     * @return \Generator<array{list<float>, list<float>, list<float>, list<int>}>
     *
     * @throws UnusableInput when it is packed, or cut off
     */
    public function points(): \Generator
    {
        foreach ($this->records() as $bytes) {
            yield $this->unpacked($bytes);
        }
    }

    /**
     * The records as they are, many at once.
     *
     * @return \Generator<string>
     *
     * @throws UnusableInput when it is packed, or cut off
     */
    public function records(): \Generator
    {
        if ($this->isPacked) {
            throw new UnusableInput($this->name, 'is a LAZ file; unpack it to LAS first');
        }
        fseek($this->stream, $this->start);
        for ($done = 0; $done < $this->count; $done += $n) {
            $n = min(self::BLOCK, $this->count - $done);
            $bytes = (string) stream_get_contents($this->stream, $n * $this->size);
            if (\strlen($bytes) < $n * $this->size) {
                throw new UnusableInput($this->name, \sprintf(
                    'is cut off: it says %d points and holds %d', $this->count, $done + intdiv(\strlen($bytes), $this->size),
                ));
            }
            yield $bytes;
        }
    }

    /** @return array{list<float>, list<float>, list<float>, list<int>} */
    public function unpacked(string $bytes): array
    {
        [$sx, $sy, $sz] = $this->scale;
        [$ox, $oy, $oz] = $this->offset;
        [$class, $bits] = $this->classAt();
        $x = $y = $z = $classes = [];
        for ($at = 0, $end = \strlen($bytes), $size = $this->size; $at < $end; $at += $size) {
            $v = unpack('V3', $bytes, $at);
            [$a, $b, $c] = [$v[1] ?? 0, $v[2] ?? 0, $v[3] ?? 0];
            $x[] = ($a < 0x80000000 ? $a : $a - 0x100000000) * $sx + $ox;
            $y[] = ($b < 0x80000000 ? $b : $b - 0x100000000) * $sy + $oy;
            $z[] = ($c < 0x80000000 ? $c : $c - 0x100000000) * $sz + $oz;
            $classes[] = \ord($bytes[$at + $class]) & $bits;
        }

        return [$x, $y, $z, $classes];
    }

    /** @return list<int> intensity of records, 0 to 65,535 */
    public function intensities(string $bytes): array
    {
        $intensities = [];
        for ($from = 12, $end = \strlen($bytes), $size = $this->size; $from < $end; $from += $size) {
            $intensities[] = \ord($bytes[$from]) | \ord($bytes[$from + 1]) << 8;
        }

        return $intensities;
    }

    public function hasColours(): bool
    {
        return isset(self::COLOURS[$this->format]);
    }

    /**
     * Intensity and colour of records, as {@see \Mensura\Cloud\PointBlock} has them; nothing where the point format has none.
     *
     * @param bool $isWide whether colours take sixteen bits, as the specification asks; some programs write eight
     *
     * @return list<string>
     */
    public function looks(string $bytes, bool $isWide): array
    {
        $at = self::COLOURS[$this->format] ?? null;
        $looks = [];
        for ($from = 0, $end = \strlen($bytes), $size = $this->size, $high = $isWide ? 1 : 0; $from < $end; $from += $size) {
            $look = $bytes[$from + 12].$bytes[$from + 13];
            $looks[] = null === $at ? $look."\0\0\0"
                : $look.$bytes[$from + $at + $high].$bytes[$from + $at + 2 + $high].$bytes[$from + $at + 4 + $high];
        }

        return $looks;
    }

    /** Whether any colour of records takes more than eight bits. */
    public function isWide(string $bytes): bool
    {
        $at = self::COLOURS[$this->format] ?? null;
        for ($from = 0, $end = \strlen($bytes); null !== $at && $from < $end; $from += $this->size) {
            if ("\0" !== $bytes[$from + $at + 1] || "\0" !== $bytes[$from + $at + 3] || "\0" !== $bytes[$from + $at + 5]) {
                return true;
            }
        }

        return false;
    }

    /**
     * GPS times of records, seconds as the file counts them; null where the point format has none (tables 7 to 20).
     *
     * @return ?list<float>
     */
    public function times(string $bytes): ?array
    {
        $at = $this->format > 5 ? 22 : ([1 => 20, 3 => 20, 4 => 20, 5 => 20][$this->format] ?? null);
        if (null === $at) {
            return null;
        }
        $times = [];
        for ($end = \strlen($bytes); $at < $end; $at += $this->size) {
            $times[] = (float) (unpack('e', $bytes, $at)[1] ?? 0.0);
        }

        return $times;
    }

    private static function whole(string $bytes, int $at, int $size): int
    {
        return (int) (unpack([2 => 'v', 4 => 'V', 8 => 'P'][$size] ?? 'C', $bytes, $at)[1] ?? 0);
    }
}
