<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Store\StoreFault;

/**
 * A file of a scan's points by square cells of the plan: time, e, n, h and intensity of each as doubles, in pieces of one cell. Of a cell
 * that holds very many, as many as a picture needs: all of the first, then every second, every fourth and so on.
 *
 * @phpstan-type Pieces array<int, list<array{int, int, int}>>
 */
final class PlanCells
{
    private const SIDE = 4.0;
    /** Cells from one row of cells to the next; odd, so that the keys differ where PHP's tables look. */
    private const ROW = 1_000_003;
    private const FULL = 4_000;
    /** Bytes held before they are written. */
    private const HELD = 1 << 25;
    private const BYTES = 40;

    /** @var Pieces offset, bytes and CRC-32 of the pieces of each cell */
    private array $pieces = [];
    /** @var array<int, string> */
    private array $held = [];
    /** @var array<int, int> */
    private array $count = [];
    private int $bytes = 0;
    private int $offset = 0;

    /** @param resource $file */
    private function __construct(private readonly mixed $file)
    {
    }

    /**
     * @param iterable<array{list<float>, list<float>, list<float>, list<float>, list<int>}> $points time, e, n, h, intensity, many at once
     *
     * @return Pieces
     *
     * @throws StoreFault when the disk does not take it
     */
    public static function write(iterable $points, string $path): array
    {
        $cells = new self(@fopen($path, 'w') ?: throw StoreFault::full(null));
        foreach ($points as [$t, $x, $y, $z, $intensity]) {
            $cells->take($t, $x, $y, $z, $intensity);
            $cells->bytes < self::HELD || $cells->flush();
        }
        $cells->flush();
        fclose($cells->file);

        return $cells->pieces;
    }

    /**
     * @param Pieces                            $pieces
     * @param array{float, float, float, float} $box    west, south, east, north
     *
     * @return array{list<float>, list<float>, list<float>, list<float>, list<float>} time, e, n, h, intensity in the cells it touches
     *
     * @throws StoreFault when a piece is not what was written
     */
    public static function near(string $path, array $pieces, array $box): array
    {
        [$w, $s, $e, $n] = array_map(static fn (float $v): int => (int) floor($v / self::SIDE), $box);
        $file = @fopen($path, 'r') ?: throw StoreFault::lost(basename($path), null);
        $bytes = '';
        for ($row = $s; $row <= $n; ++$row) {
            for ($column = $w; $column <= $e; ++$column) {
                foreach ($pieces[$row * self::ROW + $column] ?? [] as [$offset, $length, $crc]) {
                    fseek($file, $offset);
                    $piece = (string) fread($file, max(1, $length));
                    $bytes .= crc32($piece) === $crc ? $piece : throw StoreFault::damaged(basename($path));
                }
            }
        }
        fclose($file);
        $t = $x = $y = $z = $intensity = [];
        $values = unpack('e*', $bytes) ?: [];
        for ($i = 1, $n = \count($values); $i < $n; $i += 5) {
            $t[] = $values[$i];
            $x[] = $values[$i + 1];
            $y[] = $values[$i + 2];
            $z[] = $values[$i + 3];
            $intensity[] = $values[$i + 4];
        }

        return [$t, $x, $y, $z, $intensity];
    }

    /**
     * @param list<float> $t
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $intensity
     */
    private function take(array $t, array $x, array $y, array $z, array $intensity): void
    {
        foreach ($t as $i => $time) {
            $key = (int) floor($y[$i] / self::SIDE) * self::ROW + (int) floor($x[$i] / self::SIDE);
            $k = $this->count[$key] = ($this->count[$key] ?? 0) + 1;
            if ($k > self::FULL && 0 !== $k % (1 << (int) ceil(log($k / self::FULL, 2.0)))) {
                continue;
            }
            $this->held[$key] = ($this->held[$key] ?? '').pack('e5', $time, $x[$i], $y[$i], $z[$i], $intensity[$i] ?? 0);
            $this->bytes += self::BYTES;
        }
    }

    private function flush(): void
    {
        foreach ($this->held as $key => $bytes) {
            if (\strlen($bytes) !== @fwrite($this->file, $bytes)) {
                throw StoreFault::full(null);
            }
            $this->pieces[$key][] = [$this->offset, \strlen($bytes), crc32($bytes)];
            $this->offset += \strlen($bytes);
        }
        $this->held = [];
        $this->bytes = 0;
    }
}
