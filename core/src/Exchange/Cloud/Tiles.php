<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/**
 * Points as 3D Tiles 1.0 (OGC 22-025r4): an octree whose tiles add to those above them, each a .pnts file with places about a
 * middle of its own and the class of every point. Coordinates are the cloud's own; the tileset says them in its extras.
 */
final class Tiles
{
    private const MOST = 20_000;
    /** Cells along the edge of a tile, of which one point each is shown from afar. */
    private const CELLS = 48;
    private const DEEPEST = 18;

    private int $number = 0;

    private function __construct(private readonly PointBlock $points, private readonly string $folder)
    {
    }

    /** @throws UnusableInput when the disk does not take them */
    public static function write(string $folder, PointBlock $points): void
    {
        if (0 === $points->count()) {
            throw new UnusableInput('--tiles', 'no points are left to show');
        }
        if (!is_dir($folder) && !mkdir($folder)) {
            throw new UnusableInput($folder, 'cannot be made');
        }
        $low = [min($points->x), min($points->y), min($points->z)];
        $high = [max($points->x), max($points->y), max($points->z)];
        $side = max($high[0] - $low[0], $high[1] - $low[1], $high[2] - $low[2], 1e-3);
        $self = new self($points, $folder);
        $root = $self->tile(array_keys($points->x), $low, $side, 0);
        $set = [
            'asset' => ['version' => '1.0'], 'extras' => ['points' => $points->count(), 'extent' => [...$low, ...$high]],
            'geometricError' => 2.0 * $side / self::CELLS, 'root' => $root + ['refine' => 'ADD'],
        ];
        $self->put('tileset.json', json_encode($set, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES));
    }

    /**
     * @param list<int>                    $of   points
     * @param array{float, float, float}   $low  corner of its cube
     *
     * @return array<string, mixed>
     */
    private function tile(array $of, array $low, float $side, int $depth): array
    {
        [$x, $y, $z] = [$this->points->x, $this->points->y, $this->points->z];
        $shown = $of;
        $rest = [];
        if (\count($of) > self::MOST && $depth < self::DEEPEST) {
            $cell = $side / self::CELLS;
            $seen = $shown = [];
            foreach ($of as $i) {
                [$u, $v, $w] = [$x[$i] - $low[0], $y[$i] - $low[1], $z[$i] - $low[2]];
                $key = ((int) ($w / $cell) * 64 + (int) ($v / $cell)) * 64 + (int) ($u / $cell);
                if (isset($seen[$key])) {
                    $half = 0.5 * $side;
                    $rest[(int) ($u >= $half) | (int) ($v >= $half) << 1 | (int) ($w >= $half) << 2][] = $i;
                } else {
                    $seen[$key] = true;
                    $shown[] = $i;
                }
            }
        }
        $middle = [$low[0] + 0.5 * $side, $low[1] + 0.5 * $side, $low[2] + 0.5 * $side];
        $name = ($this->number++).'.pnts';
        $this->put($name, $this->content($shown, $middle));
        $children = [];
        ksort($rest);
        foreach ($rest as $octant => $points) {
            $half = 0.5 * $side;
            $corner = [$low[0] + ($octant & 1) * $half, $low[1] + ($octant >> 1 & 1) * $half, $low[2] + ($octant >> 2) * $half];
            $children[] = $this->tile($points, $corner, 0.5 * $side, $depth + 1);
        }
        $half = 0.5 * $side;
        $tile = [
            'boundingVolume' => ['box' => [...$middle, $half, 0, 0, 0, $half, 0, 0, 0, $half]],
            'geometricError' => [] === $children ? 0 : $side / self::CELLS, 'content' => ['uri' => $name],
        ];

        return [] === $children ? $tile : $tile + ['children' => $children];
    }

    /**
     * @param list<int>                  $of
     * @param array{float, float, float} $middle
     */
    private function content(array $of, array $middle): string
    {
        $places = $classes = '';
        foreach ($of as $i) {
            $places .= pack('g3', $this->points->x[$i] - $middle[0], $this->points->y[$i] - $middle[1], $this->points->z[$i] - $middle[2]);
            $classes .= \chr($this->points->classes[$i] & 255);
        }
        $table = ['POINTS_LENGTH' => \count($of), 'RTC_CENTER' => $middle, 'POSITION' => ['byteOffset' => 0]];
        $feature = self::padded(json_encode($table, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), ' ', 28);
        $body = self::padded($places, "\0", 0);
        $batch = ['CLASSIFICATION' => ['byteOffset' => 0, 'componentType' => 'UNSIGNED_BYTE', 'type' => 'SCALAR']];
        $batch = self::padded(json_encode($batch, \JSON_THROW_ON_ERROR), ' ', 0);
        $classes = self::padded($classes, "\0", 0);
        $lengths = [\strlen($feature), \strlen($body), \strlen($batch), \strlen($classes)];

        return 'pnts'.pack('V6', 1, 28 + array_sum($lengths), ...$lengths).$feature.$body.$batch.$classes;
    }

    /** To a multiple of eight bytes, counted from where it begins. */
    private static function padded(string $bytes, string $with, int $begin): string
    {
        return $bytes.str_repeat($with, (8 - ($begin + \strlen($bytes)) % 8) % 8);
    }

    private function put(string $name, string $bytes): void
    {
        if (\strlen($bytes) !== @file_put_contents($this->folder.'/'.$name, $bytes)) {
            throw new UnusableInput($this->folder, 'cannot be written to; is the disk full?');
        }
    }
}
