<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

use Mensura\Reference\Crs\Area;

/**
 * A regular grid of geoid heights N (m) over latitude and longitude, nodes from the south-west corner row by row
 * northward; bilinear interpolation. Values are kept packed (32-bit, big-endian) as in a GTX file.
 */
final readonly class GeoidGrid
{
    /** The value GTX files mark an empty node with. */
    public const EMPTY = -88.8888;

    /** Whether the columns go round the whole parallel. */
    private bool $round;

    /**
     * @param float  $south  degrees, of the first node
     * @param float  $west   degrees
     * @param float  $dLat   degrees between rows
     * @param float  $dLon   degrees between columns
     * @param string $values rows * columns big-endian floats
     *
     * @throws UnreadableGrid
     */
    public function __construct(
        public string $name,
        public float $south,
        public float $west,
        public float $dLat,
        public float $dLon,
        public int $rows,
        public int $columns,
        public string $values,
        public string $ellipsoid = '',
    ) {
        if ($rows < 2 || $columns < 2 || is_nan($dLat + $dLon + $south + $west) || $dLat <= 0.0 || $dLon <= 0.0) {
            throw new UnreadableGrid(\sprintf('%s: a geoid grid needs two rows and two columns at least, and positive steps', $name));
        }
        if ($south < -90.0 - 1e-9 || $south + $dLat * ($rows - 1) > 90.0 + 1e-6) {
            throw new UnreadableGrid(\sprintf(
                '%s: its latitudes, %s to %s, leave -90 to 90 degrees', $name, $south, $south + $dLat * ($rows - 1),
            ));
        }
        if (\strlen($values) !== 4 * $rows * $columns) {
            throw new UnreadableGrid(\sprintf(
                '%s holds %d values where %d rows of %d need %d', $name, intdiv(\strlen($values), 4), $rows, $columns,
                $rows * $columns,
            ));
        }
        $this->round = abs($columns * $dLon - 360.0) < 0.5 * $dLon;
    }

    /** The same grid under another name, above another ellipsoid. */
    public function named(string $name, string $ellipsoid): self
    {
        return new self($name, $this->south, $this->west, $this->dLat, $this->dLon, $this->rows, $this->columns, $this->values, $ellipsoid);
    }

    public function north(): float
    {
        return $this->south + $this->dLat * ($this->rows - 1);
    }

    public function east(): float
    {
        return $this->west + $this->dLon * ($this->columns - 1);
    }

    public function area(): Area
    {
        if ($this->round || $this->columns * $this->dLon >= 360.0) {
            return new Area($this->south, -180.0, min(90.0, $this->north()), 180.0, $this->name);
        }
        $turn = static fn (float $lon): float => $lon > 180.0 ? $lon - 360.0 : ($lon < -180.0 ? $lon + 360.0 : $lon);

        return new Area($this->south, $turn($this->west), min(90.0, $this->north()), $turn($this->east()), $this->name);
    }

    /**
     * Geoid height above the ellipsoid, m.
     *
     * @param float $lat degrees
     * @param float $lon degrees east
     *
     * @throws OutsideGrid also where a node it needs is empty
     */
    public function height(float $lat, float $lon): float
    {
        $y = ($lat - $this->south) / $this->dLat;
        $x = $lon - $this->west;
        if ($x < 0.0) {
            $x += 360.0;
        } elseif ($x >= 360.0) {
            $x -= 360.0;
        }
        $x /= $this->dLon;
        if ($x > $this->columns - 1 && $x > 360.0 / $this->dLon - 1e-7) {
            $x = 0.0;
        }
        $last = $this->round ? $this->columns : $this->columns - 1;
        if (is_nan($x + $y) || $y < -1e-9 || $y > $this->rows - 1 + 1e-9 || $x < 0.0 || $x > $last + 1e-9) {
            throw OutsideGrid::at($this->name, $lat, $lon);
        }
        $row = max(0, min($this->rows - 2, (int) $y));
        $column = min($this->round ? $this->columns - 1 : $this->columns - 2, (int) $x);
        $y -= $row;
        $x -= $column;
        $at = 4 * ($row * $this->columns + $column);
        $up = 4 * $this->columns;
        if ($column === $this->columns - 1) {
            $next = $at - 4 * ($this->columns - 1);
            $a = unpack('G', $this->values, $at)[1];
            $b = unpack('G', $this->values, $next)[1];
            $c = unpack('G', $this->values, $at + $up)[1];
            $d = unpack('G', $this->values, $next + $up)[1];
        } else {
            [1 => $a, 2 => $b] = unpack('G2', $this->values, $at);
            [1 => $c, 2 => $d] = unpack('G2', $this->values, $at + $up);
        }
        if (self::isEmpty($a) || self::isEmpty($b) || self::isEmpty($c) || self::isEmpty($d)) {
            throw new OutsideGrid(\sprintf('the geoid grid %s is empty at latitude %.6f, longitude %.6f degrees', $this->name, $lat, $lon));
        }

        return (1.0 - $y) * ((1.0 - $x) * $a + $x * $b) + $y * ((1.0 - $x) * $c + $x * $d);
    }

    /** Value of a node; null where it is empty. */
    public function node(int $row, int $column): ?float
    {
        $value = unpack('G', $this->values, 4 * ($row * $this->columns + $column))[1];

        return self::isEmpty($value) ? null : $value;
    }

    private static function isEmpty(float $value): bool
    {
        return is_nan($value) || abs($value - self::EMPTY) < 1e-3 || abs($value) > 500.0;
    }
}
