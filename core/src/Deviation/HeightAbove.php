<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Mesh\Mesh;

/**
 * Height of a point above a mesh, along the vertical: of several faces over or under it the nearest in height, of two equally
 * near the higher. Upright faces do not count. Faces are found by a grid over the plan.
 */
final class HeightAbove
{
    /** Metres in plan within which a point beside a face is still over it. */
    private const BESIDE = 1e-6;

    private const LIMIT = self::BESIDE * self::BESIDE;

    /** Heights this near each other are equally near, metres. */
    private const EQUAL = 1e-9;

    /** Plan area as a part of the area below which a face is upright. */
    private const UPRIGHT = 1e-9;

    private const MOST_CELLS = 4000000;

    /** @var list<int> per cell, and one more: where its faces begin */
    private array $start = [];

    /** @var list<int> faces, cell by cell */
    private array $list = [];

    /** @var list<float> nine a face: plan of its corners and heights, less the origin */
    private array $corner = [];

    private float $x0;
    private float $y0;
    private float $z0;
    private float $cell;
    private int $columns;
    private int $rows;

    public function __construct(Mesh $mesh)
    {
        [$x, $y, $z, $t] = [$mesh->x, $mesh->y, $mesh->z, $mesh->triangles];
        [$this->x0, $this->y0, $this->z0] = [min($x), min($y), min($z)];
        [$width, $height] = [max($x) - $this->x0, max($y) - $this->y0];
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $plan = abs(($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]));
            if ($plan <= self::UPRIGHT * Mesh::area($x, $y, $z, $a, $b, $c)) {
                continue;
            }
            // Anticlockwise in plan, whichever side is up.
            if (($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]) < 0.0) {
                [$b, $c] = [$c, $b];
            }
            foreach ([$a, $b, $c] as $v) {
                array_push($this->corner, $x[$v] - $this->x0, $y[$v] - $this->y0, $z[$v] - $this->z0);
            }
        }
        $faces = intdiv(\count($this->corner), 9);
        $side = max($width, $height, 1e-3);
        $this->cell = max(sqrt(max($width, 1e-3 * $side) * max($height, 1e-3 * $side) / max(1, $faces)) * 1.2, 1e-6 * $side);
        $this->cell = max($this->cell, sqrt($width * $height / self::MOST_CELLS));
        $this->columns = (int) ($width / $this->cell) + 1;
        $this->rows = (int) ($height / $this->cell) + 1;
        $this->fill($faces);
    }

    /** @return float metres; NAN where no face lies over or under the point */
    public function at(float $px, float $py, float $pz): float
    {
        $px -= $this->x0;
        $py -= $this->y0;
        $pz -= $this->z0;
        $column = (int) ($px / $this->cell);
        $row = (int) ($py / $this->cell);
        if ($px < 0.0 || $column >= $this->columns || $py < 0.0 || $row >= $this->rows) {
            if ($px < -self::BESIDE || $py < -self::BESIDE || $column > $this->columns || $row > $this->rows) {
                return \NAN;
            }
            $column = max(0, min($this->columns - 1, $column));
            $row = max(0, min($this->rows - 1, $row));
        }
        $cell = $row * $this->columns + $column;
        $best = \NAN;
        $c = $this->corner;
        for ($k = $this->start[$cell], $end = $this->start[$cell + 1]; $k < $end; ++$k) {
            $o = 9 * $this->list[$k];
            $ax = $c[$o];
            $ay = $c[$o + 1];
            $ux = $c[$o + 3] - $ax;
            $uy = $c[$o + 4] - $ay;
            $vx = $c[$o + 6] - $ax;
            $vy = $c[$o + 7] - $ay;
            $wx = $px - $ax;
            $wy = $py - $ay;
            $two = $ux * $vy - $uy * $vx;
            $s = $wx * $vy - $wy * $vx;
            $t = $ux * $wy - $uy * $wx;
            if ($s < 0.0 || $t < 0.0 || $s + $t > $two) {
                // Most that are not inside are far enough beyond one edge's line to be told by that alone.
                $r = $two - $s - $t;
                if ($s < 0.0 && $s * $s > self::LIMIT * ($vx * $vx + $vy * $vy)
                    || $t < 0.0 && $t * $t > self::LIMIT * ($ux * $ux + $uy * $uy)
                    || $r < 0.0 && $r * $r > self::LIMIT * (($vx - $ux) ** 2 + ($vy - $uy) ** 2)
                    || !self::isBeside($wx, $wy, $ux, $uy, $vx, $vy)) {
                    continue;
                }
            }
            $s /= $two;
            $t /= $two;
            $above = $pz - $c[$o + 2] - $s * ($c[$o + 5] - $c[$o + 2]) - $t * ($c[$o + 8] - $c[$o + 2]);
            // Of two equally near the higher: the one the point is least above.
            if (is_nan($best) || abs($above) < abs($best) - self::EQUAL || abs($above) < abs($best) + self::EQUAL && $above < $best) {
                $best = $above;
            }
        }

        return $best;
    }

    /** A place outside a triangle (corners at the origin, u and v), but within the tolerance of it. */
    private static function isBeside(float $wx, float $wy, float $ux, float $uy, float $vx, float $vy): bool
    {
        foreach ([[0.0, 0.0, $ux, $uy], [$ux, $uy, $vx - $ux, $vy - $uy], [0.0, 0.0, $vx, $vy]] as [$ox, $oy, $dx, $dy]) {
            $along = max(0.0, min(1.0, (($wx - $ox) * $dx + ($wy - $oy) * $dy) / ($dx * $dx + $dy * $dy)));
            if (($wx - $ox - $along * $dx) ** 2 + ($wy - $oy - $along * $dy) ** 2 <= self::LIMIT) {
                return true;
            }
        }

        return false;
    }

    private function fill(int $faces): void
    {
        $count = array_fill(0, $this->columns * $this->rows + 1, 0);
        for ($pass = 0; $pass < 2; ++$pass) {
            for ($f = 0; $f < $faces; ++$f) {
                $o = 9 * $f;
                [$c0, $c1] = $this->span($this->corner[$o], $this->corner[$o + 3], $this->corner[$o + 6], $this->columns);
                [$r0, $r1] = $this->span($this->corner[$o + 1], $this->corner[$o + 4], $this->corner[$o + 7], $this->rows);
                for ($r = $r0; $r <= $r1; ++$r) {
                    for ($k = $r * $this->columns + $c0, $last = $r * $this->columns + $c1; $k <= $last; ++$k) {
                        if (0 === $pass) {
                            ++$count[$k];
                        } else {
                            $this->list[$this->start[$k] + --$count[$k]] = $f;
                        }
                    }
                }
            }
            if (0 === $pass) {
                $sum = 0;
                foreach ($count as $n) {
                    $this->start[] = $sum;
                    $sum += $n;
                }
                $this->list = array_fill(0, $sum, 0);
            }
        }
    }

    /** @return array{int, int} cells that an edge of a box covers, with the tolerance */
    private function span(float $a, float $b, float $c, int $most): array
    {
        $low = (int) floor((min($a, $b, $c) - self::BESIDE) / $this->cell);
        $high = (int) floor((max($a, $b, $c) + self::BESIDE) / $this->cell);

        return [max(0, min($most - 1, $low)), max(0, min($most - 1, $high))];
    }
}
