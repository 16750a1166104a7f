<?php

declare(strict_types=1);

namespace Mensura\Mesh;

/** Finds corners that lie at one place, so that faces given one by one become neighbours. */
final class Corners
{
    /** Metres within which two corners are one. */
    public const SAME = 1e-6;

    /** Side of the cells in which others are looked for, metres; much more than the distance, so that few cells need be asked. */
    private const CELL = 1e-5;

    /** @var list<int> per corner: the first one at its place */
    public array $same = [];

    /**
     * @param list<float> $x metres
     * @param list<float> $y
     * @param list<float> $z
     */
    public function __construct(array $x, array $y, array $z)
    {
        if ([] === $x) {
            return;
        }
        [$x0, $y0, $z0] = [min($x), min($y), min($z)];
        $cells = [];
        foreach ($x as $i => $px) {
            $found = -1;
            $ways = [];
            foreach ([$px - $x0, $y[$i] - $y0, $z[$i] - $z0] as $axis => $offset) {
                $cell = (int) floor($offset / self::CELL);
                $within = $offset - $cell * self::CELL;
                $ways[$axis] = match (true) {
                    $within < self::SAME => [$cell, $cell - 1],
                    $within > self::CELL - self::SAME => [$cell, $cell + 1],
                    default => [$cell],
                };
            }
            foreach ($ways[0] as $cx) {
                foreach ($ways[1] as $cy) {
                    foreach ($ways[2] as $cz) {
                        foreach ($cells[self::key($cx, $cy, $cz)] ?? [] as $j) {
                            if (max(abs($x[$j] - $px), abs($y[$j] - $y[$i]), abs($z[$j] - $z[$i])) <= self::SAME) {
                                $found = $j;
                                break 4;
                            }
                        }
                    }
                }
            }
            if ($found < 0) {
                $found = $i;
                $cells[self::key($ways[0][0], $ways[1][0], $ways[2][0])][] = $i;
            }
            $this->same[] = $found;
        }
    }

    /** Cells of one key are told apart by the coordinates in them. */
    private static function key(int $cx, int $cy, int $cz): int
    {
        return ($cx % 100000000000 * 73856093) ^ ($cy % 100000000000 * 19349663) ^ ($cz % 100000000000 * 83492791);
    }
}
