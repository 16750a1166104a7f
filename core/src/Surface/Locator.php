<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** Height of a surface at a place, by a grid of triangle boxes; for surfaces with holes as well as convex ones. */
final class Locator
{
    /** @var array<int, list<int>> */
    private array $cells = [];
    private float $minX;
    private float $minY;
    private float $cell;
    private int $columns;

    public function __construct(private readonly Tin $tin)
    {
        $this->minX = min($tin->x);
        $this->minY = min($tin->y);
        $width = max($tin->x) - $this->minX;
        $height = max($tin->y) - $this->minY;
        $this->cell = max(sqrt($width * $height / max(1, $tin->triangleCount())) * 1.5, 1e-3);
        $this->columns = (int) ($width / $this->cell) + 2;
        foreach ($tin->triangles as $h => $a) {
            if (0 !== $h % 3) {
                continue;
            }
            [$c0, $c1, $r0, $r1] = $this->box($h);
            for ($r = $r0; $r <= $r1; ++$r) {
                for ($c = $c0; $c <= $c1; ++$c) {
                    $this->cells[$r * $this->columns + $c][] = $h;
                }
            }
        }
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
        $r1 = (int) (($y1 - $this->minY) / $this->cell);
        $found = [];
        for ($r = $r0; $r <= $r1; ++$r) {
            for ($c = $c0; $c <= $c1; ++$c) {
                foreach ($this->cells[$r * $this->columns + $c] ?? [] as $h) {
                    $found[$h] = true;
                }
            }
        }

        return array_keys($found);
    }

    /** First half-edge of a triangle that holds the place, edges included; null outside. */
    public function triangle(float $px, float $py): ?int
    {
        if ($px < $this->minX || $py < $this->minY) {
            return null;
        }
        $key = (int) (($py - $this->minY) / $this->cell) * $this->columns + (int) (($px - $this->minX) / $this->cell);
        $t = $this->tin->triangles;
        $x = $this->tin->x;
        $y = $this->tin->y;
        foreach ($this->cells[$key] ?? [] as $h) {
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
