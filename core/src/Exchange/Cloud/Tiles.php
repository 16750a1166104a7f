<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/**
 * Points as 3D Tiles 1.0 (OGC 22-025r4): an octree whose tiles add to those above them, every point in one of them. Coordinates
 * are the cloud's own; the tileset says their extent in its extras.
 *
 * Points are put aside on the disk as they come; then each part of the cube that holds no more than fits is divided in memory,
 * and tiles above those parts take points from the ones below, so that the whole never has to be held.
 */
final class Tiles implements CloudOut
{
    /** Points of a tile that is not divided. */
    private const MOST = 20_000;
    /** Cells along the edge of a tile, of which one point each is shown from afar. */
    private const CELLS = 48;
    private const DEEPEST = 20;
    /** Cubes along the edge at which points are counted first, as a power of two. */
    private const COUNTED = 6;

    private readonly PointSpill $all;

    /** @var array{float, float, float} */
    private array $low = [\INF, \INF, \INF];

    /** @var array{float, float, float} */
    private array $high = [-\INF, -\INF, -\INF];

    /**
     * @param int  $held       points that are divided in memory at once
     * @param bool $hasColours whether the points that come have colours
     */
    public function __construct(
        private readonly string $folder, private readonly int $held = 400_000, private readonly bool $hasColours = false,
    ) {
        $this->all = new PointSpill();
    }

    public function write(PointBlock $points): void
    {
        if ($points->count() > 0) {
            foreach ([$points->x, $points->y, $points->z] as $k => $axis) {
                $this->low[$k] = min($this->low[$k], min($axis));
                $this->high[$k] = max($this->high[$k], max($axis));
            }
            $this->all->add($points);
        }
    }

    /** @throws UnusableInput when the disk does not take them, or there are none */
    public function finish(): void
    {
        if (0 === $this->all->count) {
            throw new UnusableInput('--tiles', 'no points are left to show');
        }
        if (!is_dir($this->folder) && !mkdir($this->folder)) {
            throw new UnusableInput($this->folder, 'cannot be made');
        }
        $files = new TileFolder($this->folder, $this->hasColours);
        $side = max($this->high[0] - $this->low[0], $this->high[1] - $this->low[1], $this->high[2] - $this->low[2], 1e-3);
        $parts = $this->parts($side);
        [$tile, $shown, $middle] = $this->upper('', $this->low, $side, $parts, $files);
        $tile['content'] = ['uri' => $files->content($shown, $middle)];
        $set = [
            'asset' => ['version' => '1.0'], 'extras' => ['points' => $this->all->count, 'extent' => [...$this->low, ...$this->high]],
            'geometricError' => 2.0 * $side / self::CELLS, 'root' => $tile + ['refine' => 'ADD'],
        ];
        $files->put('tileset.json', json_encode($set, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES));
    }

    /**
     * The parts that are divided in memory: octants of octants, named by the digits of the way down, none with more points than
     * are held but where many share a place.
     *
     * @return array<string, PointSpill>
     */
    private function parts(float $side): array
    {
        $cell = $side / (1 << self::COUNTED);
        $counts = [];
        [$w, $s, $l] = $this->low;
        foreach ($this->all->blocks() as $b) {
            foreach ($b->x as $i => $x) {
                $key = self::key($x - $w, $b->y[$i] - $s, $b->z[$i] - $l, $cell);
                $counts[$key] = ($counts[$key] ?? 0) + 1;
            }
        }
        $names = $total = [];
        foreach ($counts as $key => $n) {
            $names[$key] = $name = self::name($key);
            for ($d = 0; $d <= self::COUNTED; ++$d) {
                $above = substr($name, 0, $d);
                $total[$above] = ($total[$above] ?? 0) + $n;
            }
        }
        $partOf = [];
        $parts = [];
        foreach ($names as $key => $name) {
            for ($d = 0; $d < self::COUNTED && $total[substr($name, 0, $d)] > $this->held; ++$d) {
            }
            $partOf[$key] = 'p'.substr($name, 0, $d);
            $parts[$partOf[$key]] ??= new PointSpill();
        }
        foreach ($this->all->blocks() as $b) {
            $of = [];
            foreach ($b->x as $i => $x) {
                $key = self::key($x - $w, $b->y[$i] - $s, $b->z[$i] - $l, $cell);
                $of[$partOf[$key]][] = $i;
            }
            foreach ($of as $part => $points) {
                $parts[$part]->add($b->only($points));
            }
        }

        return $parts;
    }

    /** One number a counted cube; the last along an edge takes what lies on the far side. */
    private static function key(float $x, float $y, float $z, float $cell): int
    {
        $last = (1 << self::COUNTED) - 1;

        return min($last, (int) ($z / $cell)) << 2 * self::COUNTED | min($last, (int) ($y / $cell)) << self::COUNTED
            | min($last, (int) ($x / $cell));
    }

    /** The way down to a cube that is counted, an octant a digit. */
    private static function name(int $key): string
    {
        $mask = (1 << self::COUNTED) - 1;
        [$i, $j, $k] = [$key & $mask, $key >> self::COUNTED & $mask, $key >> 2 * self::COUNTED];
        $name = '';
        for ($bit = self::COUNTED - 1; $bit >= 0; --$bit) {
            $name .= ($i >> $bit & 1) | ($j >> $bit & 1) << 1 | ($k >> $bit & 1) << 2;
        }

        return $name;
    }

    /**
     * A tile above parts, or a part. Its own points are not written yet: tiles above may take some of them.
     *
     * @param string                     $name  of the way down
     * @param array{float, float, float} $low   corner of its cube
     * @param array<string, PointSpill>  $parts
     *
     * @return array{array<string, mixed>, PointBlock, array{float, float, float}} the tile, its points, its middle
     */
    private function upper(string $name, array $low, float $side, array $parts, TileFolder $files): array
    {
        if (isset($parts['p'.$name])) {
            $points = new PointBlock();
            foreach ($parts['p'.$name]->blocks() as $block) {
                $points->add($block);
            }

            return $this->divided($points, $low, $side, \strlen($name), $files);
        }
        $half = 0.5 * $side;
        $below = [];
        foreach (range(0, 7) as $octant) {
            $of = 'p'.$name.$octant;
            if ([] !== array_filter(array_keys($parts), static fn (string $p): bool => str_starts_with($p, $of))) {
                $below[] = $this->upper($name.$octant, self::corner($low, $half, $octant), $half, $parts, $files);
            }
        }
        // One point a cell, of those the tiles below show.
        $seen = [];
        $shown = new PointBlock();
        $children = [];
        foreach ($below as [$tile, $points, $middle]) {
            [$taken, $left] = self::spread($points, $low, $side / self::CELLS, $seen);
            $shown->add($points->only($taken));
            $children[] = $tile + ['content' => ['uri' => $files->content($points->only($left), $middle)]];
        }

        return [self::tile($low, $side, $children), $shown, self::middle($low, $side)];
    }

    /**
     * A part in memory. Its own points are not written yet.
     *
     * @param array{float, float, float} $low
     *
     * @return array{array<string, mixed>, PointBlock, array{float, float, float}}
     */
    private function divided(PointBlock $points, array $low, float $side, int $depth, TileFolder $files): array
    {
        $children = [];
        if ($points->count() > self::MOST && $depth < self::DEEPEST) {
            $seen = [];
            [$taken, $left] = self::spread($points, $low, $side / self::CELLS, $seen);
            $half = 0.5 * $side;
            $octants = [];
            foreach ($left as $i) {
                $octant = (int) ($points->x[$i] - $low[0] >= $half) | (int) ($points->y[$i] - $low[1] >= $half) << 1
                    | (int) ($points->z[$i] - $low[2] >= $half) << 2;
                $octants[$octant][] = $i;
            }
            ksort($octants);
            foreach ($octants as $octant => $of) {
                $corner = self::corner($low, $half, $octant);
                [$tile, $shown, $middle] = $this->divided($points->only($of), $corner, $half, $depth + 1, $files);
                $children[] = $tile + ['content' => ['uri' => $files->content($shown, $middle)]];
            }
            $points = $points->only($taken);
        }

        return [self::tile($low, $side, $children), $points, self::middle($low, $side)];
    }

    /**
     * @param array{float, float, float} $low
     * @param array<int, true>           $seen cells that show a point already
     *
     * @return array{list<int>, list<int>} the first point of every cell, and the rest
     */
    private static function spread(PointBlock $points, array $low, float $cell, array &$seen): array
    {
        $taken = $left = [];
        [$w, $s, $l] = $low;
        foreach ($points->x as $i => $x) {
            $key = ((int) (($points->z[$i] - $l) / $cell) * 64 + (int) (($points->y[$i] - $s) / $cell)) * 64 + (int) (($x - $w) / $cell);
            if (isset($seen[$key])) {
                $left[] = $i;
            } else {
                $seen[$key] = true;
                $taken[] = $i;
            }
        }

        return [$taken, $left];
    }

    /**
     * @param array{float, float, float} $low
     *
     * @return array{float, float, float}
     */
    private static function corner(array $low, float $half, int $octant): array
    {
        return [$low[0] + ($octant & 1) * $half, $low[1] + ($octant >> 1 & 1) * $half, $low[2] + ($octant >> 2) * $half];
    }

    /**
     * @param array{float, float, float} $low
     *
     * @return array{float, float, float}
     */
    private static function middle(array $low, float $side): array
    {
        return [$low[0] + 0.5 * $side, $low[1] + 0.5 * $side, $low[2] + 0.5 * $side];
    }

    /**
     * @param array{float, float, float}  $low
     * @param list<array<string, mixed>>  $children
     *
     * @return array<string, mixed>
     */
    private static function tile(array $low, float $side, array $children): array
    {
        $half = 0.5 * $side;
        $tile = [
            'boundingVolume' => ['box' => [...self::middle($low, $side), $half, 0, 0, 0, $half, 0, 0, 0, $half]],
            'geometricError' => [] === $children ? 0 : $side / self::CELLS,
        ];

        return [] === $children ? $tile : $tile + ['children' => $children];
    }
}
