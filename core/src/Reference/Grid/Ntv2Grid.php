<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

use Mensura\Reference\Crs\Area;

/**
 * A grid of horizontal shifts in the NTv2 format (Canadian Geodetic Survey, NTv2 Developer's Guide, 1995), sub-grids
 * included, either byte order. Shifts in seconds, longitudes positive west inside the file; bilinear interpolation.
 */
final class Ntv2Grid
{
    /**
     * Sub-grids: limits and steps in degrees, positive east, and the packed nodes.
     *
     * @var list<array{
     *     name: string, south: float, north: float, west: float, east: float, dLat: float, dLon: float, rows: int,
     *     columns: int, nodes: string,
     * }>
     */
    private array $grids = [];

    /** @var array<int, list<int>> finer grids within one, by index */
    private array $children = [];

    /** @var list<int> grids without a parent */
    private array $roots = [];

    private string $float = 'g';

    /** Semi-major and semi-minor axes (m) of the ellipsoids the grid says it leads from and to. */
    public readonly float $fromA;
    public readonly float $fromB;
    public readonly float $toA;
    public readonly float $toB;

    /** Whether these bytes begin as an NTv2 file does. */
    public static function isOne(string $bytes): bool
    {
        return str_starts_with($bytes, 'NUM_OREC');
    }

    /** @throws UnreadableGrid */
    public function __construct(public readonly string $name, string $bytes)
    {
        if (\strlen($bytes) < 176 || !self::isOne($bytes)) {
            throw new UnreadableGrid(\sprintf('%s is not an NTv2 grid: it does not begin with NUM_OREC', $name));
        }
        $little = 11 === unpack('V', $bytes, 8)[1];
        if (!$little && 11 !== unpack('N', $bytes, 8)[1]) {
            throw new UnreadableGrid(\sprintf('%s: an NTv2 grid has 11 overview records; this one has another count', $name));
        }
        $this->float = $little ? 'g' : 'G';
        $double = $little ? 'e' : 'E';
        $int = $little ? 'V' : 'N';
        $count = unpack($int, $bytes, 40)[1];
        if ('SECONDS' !== trim(substr($bytes, 56, 8))) {
            throw new UnreadableGrid(\sprintf('%s: shifts in "%s" are not read, only in SECONDS', $name, trim(substr($bytes, 56, 8))));
        }
        [$this->fromA, $this->fromB, $this->toA, $this->toB] = array_map(
            static fn (int $record): float => unpack($double, $bytes, 16 * $record + 8)[1],
            [7, 8, 9, 10],
        );
        $at = 176;
        $names = [];
        for ($g = 0; $g < $count; ++$g) {
            if (\strlen($bytes) < $at + 176 || 'SUB_NAME' !== substr($bytes, $at, 8)) {
                throw new UnreadableGrid(\sprintf('%s is cut short at sub-grid %d of %d', $name, $g + 1, $count));
            }
            $value = static fn (int $record): float => unpack($double, $bytes, $at + 16 * $record + 8)[1];
            $nodes = unpack($int, $bytes, $at + 16 * 10 + 8)[1];
            $dLat = $value(8);
            $dLon = $value(9);
            $rows = 0.0 === $dLat ? 0 : (int) round(($value(5) - $value(4)) / $dLat) + 1;
            $columns = 0.0 === $dLon ? 0 : (int) round(($value(7) - $value(6)) / $dLon) + 1;
            if ($rows < 2 || $columns < 2 || $rows * $columns !== $nodes) {
                throw new UnreadableGrid(\sprintf(
                    '%s: sub-grid %d has %d nodes where its limits ask for %d by %d', $name, $g + 1, $nodes, $rows,
                    $columns,
                ));
            }
            if (\strlen($bytes) < $at + 176 + 16 * $nodes) {
                throw new UnreadableGrid(\sprintf('%s is cut short in sub-grid %d', $name, $g + 1));
            }
            $sub = trim(substr($bytes, $at + 8, 8));
            $names[$sub] = $g;
            $this->grids[] = [
                'name' => $sub,
                'south' => $value(4) / 3600.0, 'north' => $value(5) / 3600.0,
                // Positive west in the file: its "E_LONG" is the lower value.
                'east' => -$value(6) / 3600.0, 'west' => -$value(7) / 3600.0,
                'dLat' => $dLat / 3600.0, 'dLon' => $dLon / 3600.0,
                'rows' => $rows, 'columns' => $columns,
                'nodes' => substr($bytes, $at + 176, 16 * $nodes),
            ];
            $parent = trim(substr($bytes, $at + 24, 8));
            if (isset($names[$parent]) && 'NONE' !== $parent && $names[$parent] !== $g) {
                $this->children[$names[$parent]][] = $g;
            } else {
                $this->roots[] = $g;
            }
            $at += 176 + 16 * $nodes;
        }
        if ([] === $this->grids) {
            throw new UnreadableGrid(\sprintf('%s holds no sub-grid', $name));
        }
    }

    /**
     * Shift at a position.
     *
     * @param float $lat degrees
     * @param float $lon degrees east of Greenwich
     *
     * @return array{float, float} degrees to add to latitude and to (east) longitude
     *
     * @throws OutsideGrid
     */
    public function shift(float $lat, float $lon): array
    {
        foreach ($this->roots as $g) {
            if ($this->covers($g, $lat, $lon)) {
                // The finest sub-grid that holds the position rules.
                do {
                    $deeper = false;
                    foreach ($this->children[$g] ?? [] as $child) {
                        if ($this->covers($child, $lat, $lon)) {
                            $g = $child;
                            $deeper = true;
                            break;
                        }
                    }
                } while ($deeper);

                return $this->interpolate($g, $lat, $lon);
            }
        }

        throw OutsideGrid::at($this->name, $lat, $lon);
    }

    /**
     * Position whose shifted place is the given one, by fixed-point iteration to 1e-12 degrees.
     *
     * @return array{float, float} degrees to add (the negative of the shift at the result)
     */
    public function shiftBack(float $lat, float $lon): array
    {
        [$dLat, $dLon] = $this->shift($lat, $lon);
        for ($i = 0; $i < 15; ++$i) {
            [$nextLat, $nextLon] = $this->shift($lat - $dLat, $lon - $dLon);
            $change = abs($nextLat - $dLat) + abs($nextLon - $dLon);
            $dLat = $nextLat;
            $dLon = $nextLon;
            if ($change < 1e-12) {
                break;
            }
        }

        return [-$dLat, -$dLon];
    }

    public function contains(float $lat, float $lon): bool
    {
        foreach ($this->roots as $g) {
            if ($this->covers($g, $lat, $lon)) {
                return true;
            }
        }

        return false;
    }

    /** What its outermost grids hold together. */
    public function area(): Area
    {
        $of = fn (string $side): array => array_map(fn (int $g): float => (float) $this->grids[$g][$side], $this->roots);

        return new Area(
            max(-90.0, min([90.0, ...$of('south')])), max(-180.0, min([180.0, ...$of('west')])),
            min(90.0, max([-90.0, ...$of('north')])), min(180.0, max([-180.0, ...$of('east')])), $this->name,
        );
    }

    private function covers(int $g, float $lat, float $lon): bool
    {
        $grid = $this->grids[$g];

        return $lat >= $grid['south'] - 1e-12
            && $lat <= $grid['north'] + 1e-12
            && $lon >= $grid['west'] - 1e-12
            && $lon <= $grid['east'] + 1e-12;
    }

    /** @return array{float, float} */
    private function interpolate(int $g, float $lat, float $lon): array
    {
        $grid = $this->grids[$g];
        $y = ($lat - $grid['south']) / $grid['dLat'];
        // Columns run west from the eastern edge.
        $x = ($grid['east'] - $lon) / $grid['dLon'];
        $row = max(0, min($grid['rows'] - 2, (int) $y));
        $column = max(0, min($grid['columns'] - 2, (int) $x));
        $y -= $row;
        $x -= $column;
        $at = 16 * ($row * $grid['columns'] + $column);
        $format = $this->float.'a/'.$this->float.'b/x8/'.$this->float.'c/'.$this->float.'d';
        /** @var array{a: float, b: float, c: float, d: float} $low */
        $low = unpack($format, $grid['nodes'], $at);
        /** @var array{a: float, b: float, c: float, d: float} $high */
        $high = unpack($format, $grid['nodes'], $at + 16 * $grid['columns']);
        $p = (1.0 - $x) * (1.0 - $y);
        $q = $x * (1.0 - $y);
        $r = (1.0 - $x) * $y;
        $s = $x * $y;

        return [
            ($p * $low['a'] + $q * $low['c'] + $r * $high['a'] + $s * $high['c']) / 3600.0,
            -($p * $low['b'] + $q * $low['d'] + $r * $high['b'] + $s * $high['d']) / 3600.0,
        ];
    }
}
