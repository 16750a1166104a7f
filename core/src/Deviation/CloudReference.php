<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Fault\UnusableInput;

/**
 * A point cloud as reference: about each measured point the plane by least squares of heights through the cloud's points within a
 * radius in plan. Common practice in comparing clouds: a fitted plane stands for the surface the cloud samples, and its noise
 * averages out. Along the normal the height difference is brought to right angles with that plane.
 */
final class CloudReference implements Reference
{
    /** Radius without being said: so many mean spacings. */
    private const SPACINGS = 3.0;

    /** Points a plane is fitted through at least; fewer say nothing about a slope. */
    private const LEAST = 4;

    /** Determinant, as a part of what a round cloud of that size has, below which the points lie on one line. */
    private const LINE = 1e-6;

    public readonly float $radius;
    private readonly float $cell;
    private readonly float $x0;
    private readonly float $y0;
    private readonly int $columns;
    private readonly int $rows;

    /** @var list<int> first place of each cell in the order, one more at the end */
    private array $first;

    /** @var list<int> points by cell */
    private array $order;

    private float $steepest = 0.0;

    /**
     * @param list<float> $x metres
     * @param list<float> $y
     * @param list<float> $z
     *
     * @throws UnusableInput for fewer points than a plane needs, or a radius that is none
     */
    public function __construct(private readonly array $x, private readonly array $y, private readonly array $z, ?float $radius = null)
    {
        $n = \count($x);
        if ($n < self::LEAST || \count($y) !== $n || \count($z) !== $n) {
            throw new UnusableInput('', \sprintf('a cloud to compare with has %d points or more; there are %d', self::LEAST, $n));
        }
        if (null !== $radius && !($radius > 0.0)) {
            throw new UnusableInput('/radius', 'is greater than nothing');
        }
        [$this->x0, $this->y0] = [min($x), min($y)];
        $width = max($x) - $this->x0;
        $depth = max($y) - $this->y0;
        $radius ??= self::SPACINGS * sqrt(max($width * $depth, 1e-12) / $n);
        $this->radius = $radius;
        // No finer than some million cells: a single stray point far away must not fill the memory.
        $cell = max($radius, sqrt($width * $depth / 4e6), max($width, $depth) / 4e6);
        $this->cell = $cell;
        $this->columns = 1 + (int) floor($width / $cell);
        $this->rows = 1 + (int) floor($depth / $cell);
        $count = array_fill(0, $this->columns * $this->rows + 1, 0);
        $in = [];
        for ($i = 0; $i < $n; ++$i) {
            $c = (int) floor(($y[$i] - $this->y0) / $cell) * $this->columns + (int) floor(($x[$i] - $this->x0) / $cell);
            $in[] = $c;
            ++$count[$c + 1];
        }
        for ($c = 0, $cells = $this->columns * $this->rows; $c < $cells; ++$c) {
            $count[$c + 1] += $count[$c];
        }
        $this->first = $count;
        $order = array_fill(0, $n, 0);
        foreach ($in as $i => $c) {
            $order[$count[$c]++] = $i;
        }
        $this->order = $order;
    }

    public function deviations(array $x, array $y, array $z, Along $along, ?\Closure $progress = null): array
    {
        $found = [];
        $n = \count($x);
        for ($i = 0; $i < $n; ++$i) {
            [$height, $slope] = $this->plane($x[$i], $y[$i]);
            $d = $z[$i] - $height;
            $found[] = Along::Normal === $along ? $d / sqrt(1.0 + $slope * $slope) : $d;
            if ($slope > $this->steepest) {
                $this->steepest = $slope;
            }
            if (null !== $progress && 0 === $i % 20000) {
                $progress($i / $n);
            }
        }

        return $found;
    }

    /** Of the planes met so far. */
    public function steepest(): float
    {
        return $this->steepest;
    }

    /**
     * Height and slope of the cloud's plane at a place. Heights are reckoned from the place, so that sums of large coordinates
     * lose nothing.
     *
     * @return array{float, float} metres, metres a metre; NAN where too few points are near, or the place lies beside them
     */
    public function plane(float $px, float $py): array
    {
        $r2 = $this->radius * $this->radius;
        $column = (int) floor(($px - $this->x0) / $this->cell);
        $row = (int) floor(($py - $this->y0) / $this->cell);
        $k = 0;
        $sx = $sy = $sz = $sxx = $sxy = $syy = $sxz = $syz = 0.0;
        $z0 = null;
        $west = $east = $south = $north = false;
        [$fromRow, $toRow] = [max(0, $row - 1), min($this->rows - 1, $row + 1)];
        [$fromColumn, $toColumn] = [max(0, $column - 1), min($this->columns - 1, $column + 1)];
        for ($r = $fromRow; $r <= $toRow && $fromColumn <= $toColumn; ++$r) {
            $end = $this->first[$r * $this->columns + $toColumn + 1];
            for ($j = $this->first[$r * $this->columns + $fromColumn]; $j < $end; ++$j) {
                $i = $this->order[$j];
                $dx = $this->x[$i] - $px;
                $dy = $this->y[$i] - $py;
                if ($dx * $dx + $dy * $dy > $r2) {
                    continue;
                }
                $z0 ??= $this->z[$i];
                $dz = $this->z[$i] - $z0;
                ++$k;
                $sx += $dx;
                $sy += $dy;
                $sz += $dz;
                $sxx += $dx * $dx;
                $sxy += $dx * $dy;
                $syy += $dy * $dy;
                $sxz += $dx * $dz;
                $syz += $dy * $dz;
                $west = $west || $dx <= 0.0;
                $east = $east || $dx >= 0.0;
                $south = $south || $dy <= 0.0;
                $north = $north || $dy >= 0.0;
            }
        }
        // Beside the cloud a plane would be carried on to where nobody measured.
        if ($k < self::LEAST || null === $z0 || !($west && $east && $south && $north)) {
            return [\NAN, \NAN];
        }
        $cxx = $sxx - $sx * $sx / $k;
        $cxy = $sxy - $sx * $sy / $k;
        $cyy = $syy - $sy * $sy / $k;
        $cxz = $sxz - $sx * $sz / $k;
        $cyz = $syz - $sy * $sz / $k;
        $determinant = $cxx * $cyy - $cxy * $cxy;
        if (!($determinant > self::LINE * ($cxx + $cyy) ** 2)) {
            return [\NAN, \NAN];
        }
        $a = ($cxz * $cyy - $cyz * $cxy) / $determinant;
        $b = ($cyz * $cxx - $cxz * $cxy) / $determinant;

        return [$z0 + ($sz - $a * $sx - $b * $sy) / $k, hypot($a, $b)];
    }
}
