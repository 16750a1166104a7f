<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** Height of a surface at a place, by a grid of triangle boxes; for surfaces with holes as well as convex ones. */
final class Locator
{
    /** @var list<int> where the triangles of each cell begin in the list of all; one more at the end */
    private array $begin;

    /** @var list<int> triangles, by cell */
    private array $in;

    /** @var list<int> first column of each triangle's box */
    private array $west = [];

    /** @var list<int> first row of each triangle's box */
    private array $south = [];
    private float $minX;
    private float $minY;
    private float $cell;
    private int $columns;
    private int $rows;

    public function __construct(private readonly Tin $tin)
    {
        $this->minX = min($tin->x);
        $this->minY = min($tin->y);
        $width = max($tin->x) - $this->minX;
        $height = max($tin->y) - $this->minY;
        $this->cell = max(sqrt($width * $height / max(1, $tin->triangleCount())) * 1.5, 1e-3);
        $this->columns = (int) ($width / $this->cell) + 2;
        $this->rows = (int) ($height / $this->cell) + 2;
        // Counted first, so that all lie in one list: a list to a cell would take several times the room and the time.
        $count = array_fill(0, $this->columns * $this->rows + 1, 0);
        // Flat: a list of four to each of millions of triangles would take a quarter of a gigabyte.
        $east = $north = [];
        for ($h = 0, $end = \count($tin->triangles); $h < $end; $h += 3) {
            [$c0, $c1, $r0, $r1] = $this->box($h);
            $this->west[] = $c0;
            $this->south[] = $r0;
            $east[] = $c1;
            $north[] = $r1;
            for ($r = $r0; $r <= $r1; ++$r) {
                for ($c = $c0; $c <= $c1; ++$c) {
                    ++$count[$r * $this->columns + $c + 1];
                }
            }
        }
        for ($k = 0, $cells = $this->columns * $this->rows; $k < $cells; ++$k) {
            $count[$k + 1] += $count[$k];
        }
        $this->begin = $count;
        $in = array_fill(0, max(1, $count[$cells]), 0);
        foreach ($this->west as $t => $c0) {
            $c1 = $east[$t];
            for ($r = $this->south[$t], $r1 = $north[$t]; $r <= $r1; ++$r) {
                for ($c = $c0; $c <= $c1; ++$c) {
                    $in[$count[$r * $this->columns + $c]++] = $t;
                }
            }
        }
        $this->in = array_values($in);
    }

    /** @return array{int, int, int, int} columns and rows a triangle's box covers */
    private function box(int $h): array
    {
        $t = $this->tin->triangles;
        $x = [$this->tin->x[$t[$h]], $this->tin->x[$t[$h + 1]], $this->tin->x[$t[$h + 2]]];
        $y = [$this->tin->y[$t[$h]], $this->tin->y[$t[$h + 1]], $this->tin->y[$t[$h + 2]]];

        return [
            (int) ((min($x) - $this->minX) / $this->cell), (int) ((max($x) - $this->minX) / $this->cell),
            (int) ((min($y) - $this->minY) / $this->cell), (int) ((max($y) - $this->minY) / $this->cell),
        ];
    }

    /**
     * First half-edges of the triangles whose boxes may touch a box.
     *
     * @return list<int>
     */
    public function near(float $x0, float $y0, float $x1, float $y1): array
    {
        $c0 = max(0, (int) (($x0 - $this->minX) / $this->cell));
        $c1 = min($this->columns - 1, (int) (($x1 - $this->minX) / $this->cell));
        $r0 = max(0, (int) (($y0 - $this->minY) / $this->cell));
        $r1 = min($this->rows - 1, (int) (($y1 - $this->minY) / $this->cell));
        $found = [];
        [$begin, $in, $west, $south, $columns] = [$this->begin, $this->in, $this->west, $this->south, $this->columns];
        for ($r = $r0; $r <= $r1; ++$r) {
            for ($c = $c0; $c <= $c1; ++$c) {
                $cell = $r * $columns + $c;
                for ($i = $begin[$cell], $end = $begin[$cell + 1]; $i < $end; ++$i) {
                    $t = $in[$i];
                    // In several cells of the box: taken in the first of them only.
                    if (($c === $c0 || $west[$t] === $c) && ($r === $r0 || $south[$t] === $r)) {
                        $found[] = 3 * $t;
                    }
                }
            }
        }

        return $found;
    }

    /** First half-edge of a triangle that holds the place, edges included; null outside. */
    public function triangle(float $px, float $py): ?int
    {
        if ($px < $this->minX || $py < $this->minY) {
            return null;
        }
        $column = (int) (($px - $this->minX) / $this->cell);
        $row = (int) (($py - $this->minY) / $this->cell);
        if ($column >= $this->columns || $row >= $this->rows) {
            return null;
        }
        $cell = $row * $this->columns + $column;
        $t = $this->tin->triangles;
        $x = $this->tin->x;
        $y = $this->tin->y;
        for ($i = $this->begin[$cell], $end = $this->begin[$cell + 1]; $i < $end; ++$i) {
            $h = 3 * $this->in[$i];
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $tolerance = -1e-9 * (abs($x[$b] - $x[$a]) + abs($y[$b] - $y[$a]) + abs($x[$c] - $x[$a]) + abs($y[$c] - $y[$a])) ** 2;
            if (($x[$b] - $x[$a]) * ($py - $y[$a]) - ($y[$b] - $y[$a]) * ($px - $x[$a]) >= $tolerance
                && ($x[$c] - $x[$b]) * ($py - $y[$b]) - ($y[$c] - $y[$b]) * ($px - $x[$b]) >= $tolerance
                && ($x[$a] - $x[$c]) * ($py - $y[$c]) - ($y[$a] - $y[$c]) * ($px - $x[$c]) >= $tolerance) {
                return $h;
            }
        }

        return null;
    }

    public function height(float $px, float $py): ?float
    {
        $h = $this->triangle($px, $py);

        return null === $h ? null : $this->heightIn($h, $px, $py);
    }

    /** Height of the plane of a triangle. */
    public function heightIn(int $h, float $px, float $py): float
    {
        [$a, $b, $c] = [$this->tin->triangles[$h], $this->tin->triangles[$h + 1], $this->tin->triangles[$h + 2]];
        $x = $this->tin->x;
        $y = $this->tin->y;
        $z = $this->tin->z;
        $ux = $x[$b] - $x[$a];
        $uy = $y[$b] - $y[$a];
        $vx = $x[$c] - $x[$a];
        $vy = $y[$c] - $y[$a];
        $det = $ux * $vy - $uy * $vx;
        $s = (($px - $x[$a]) * $vy - ($py - $y[$a]) * $vx) / $det;
        $t = ($ux * ($py - $y[$a]) - $uy * ($px - $x[$a])) / $det;

        return $z[$a] + $s * ($z[$b] - $z[$a]) + $t * ($z[$c] - $z[$a]);
    }
}
