<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Image\Lens;
use Mensura\Matching\GreyImage;

/**
 * Heights of a grid from oriented images: over every cell the height at which the images show the same, by the mean correlation of
 * patches of the ground (vertical line locus; Schenk, Digital Photogrammetry, section 10; Bethmann and Luhmann 2010), from coarse cells
 * to fine ones. Rows run south from the north-west corner. Metres.
 */
final class ElevationModel
{
    /** Half a patch, samples. */
    private const HALF = 3;
    private const IMAGES = 4;
    /** Correlation below which nothing is said. */
    private const LEAST = 0.6;

    /**
     * @param list<?float> $h     by row; null where the images do not say
     * @param list<float>  $score mean correlations
     */
    private function __construct(
        public readonly float $west, public readonly float $north, public readonly float $cell, public readonly int $columns,
        public readonly int $rows, public readonly array $h, public readonly array $score,
    ) {
    }

    /**
     * @param array<int, GreyImage>             $grey
     * @param array{float, float, float, float} $box      west, south, east, north
     * @param array{float, float}               $between  heights the ground lies between
     * @param float                             $cell     of the result
     * @param ?\Closure(float): void            $progress
     */
    public static function of(
        OrientedImages $images, array $grey, array $box, array $between, float $cell, ?\Closure $progress = null,
    ): self {
        $model = null;
        foreach ([8.0, 4.0, 2.0, 1.0] as $k => $times) {
            $size = $times * $cell;
            $columns = max(1, (int) ceil(($box[2] - $box[0]) / $size));
            $rows = max(1, (int) ceil(($box[3] - $box[1]) / $size));
            $model = self::level($images, $grey, $box[0], $box[3], $size, $columns, $rows, $between, $model, $k, $progress);
        }

        return $model;
    }

    /**
     * @param array<int, GreyImage> $grey
     * @param array{float, float}   $between
     */
    private static function level(
        OrientedImages $images, array $grey, float $west, float $north, float $size, int $columns, int $rows, array $between, ?self $before,
        int $level, ?\Closure $progress,
    ): self {
        // Of the images as they are looked at, which may be smaller than they were taken.
        $scale = [] === $grey ? 1.0 : max(array_map(static fn (GreyImage $g): float => $g->scale, $grey));
        $pixel = $scale * $images->groundPixel(0.5 * ($between[0] + $between[1]));
        // A step in height moves the images by half a pixel or so against each other.
        $step = max(0.15 * $size, 1.2 * $pixel);
        $spacing = max($pixel, $size / (2.0 * self::HALF + 1.0));
        $h = $score = [];
        for ($row = 0; $row < $rows; ++$row) {
            if (null !== $progress) {
                $progress(($level + $row / $rows) / 4.0);
            }
            for ($column = 0; $column < $columns; ++$column) {
                $e = $west + ($column + 0.5) * $size;
                $n = $north - ($row + 0.5) * $size;
                $near = $before?->near($e, $n);
                [$low, $high] = null === $near ? $between : [$near[0] - 2.0 * $step, $near[1] + 2.0 * $step];
                $middle = 0.5 * ($low + $high);
                $of = $images->showing($e, $n, $middle, self::IMAGES, (self::HALF + 1.0) * $spacing * $scale / $pixel);
                [$best, $at] = \count($of) < 2 ? [-1.0, $middle] : self::search($images, $grey, $of, $e, $n, $low, $high, $step, $spacing);
                $h[] = $best >= self::LEAST ? $at : null;
                $score[] = $best;
            }
        }

        return (new self($west, $north, $size, $columns, $rows, $h, $score))->cleaned(3.0 * $step);
    }

    /**
     * @param array<int, GreyImage> $grey
     * @param list<int>             $of
     *
     * @return array{float, float} best mean correlation, and the height it is at
     */
    private static function search(
        OrientedImages $images, array $grey, array $of, float $e, float $n, float $low, float $high, float $step, float $spacing,
    ): array {
        $count = max(3, (int) ceil(($high - $low) / $step) + 1);
        $scores = [];
        for ($k = 0; $k < $count; ++$k) {
            $scores[] = self::score($images, $grey, $of, $e, $n, $low + $k * $step, $spacing);
        }
        $best = (int) array_search(max($scores), $scores, true);
        $at = $low + $best * $step;
        if ($best > 0 && $best < $count - 1) {
            $bend = $scores[$best - 1] - 2.0 * $scores[$best] + $scores[$best + 1];
            $at += $bend < 0.0 ? $step * max(-0.5, min(0.5, 0.5 * ($scores[$best - 1] - $scores[$best + 1]) / $bend)) : 0.0;
        }

        return [$scores[$best], $at];
    }

    /**
     * @param array<int, GreyImage> $grey
     * @param list<int>             $of
     */
    private static function score(
        OrientedImages $images, array $grey, array $of, float $e, float $n, float $h, float $spacing,
    ): float {
        $first = null;
        $sum = 0.0;
        $count = 0;
        foreach ($of as $i) {
            $patch = self::patch($images, $grey[$i], $i, $e, $n, $h, $spacing);
            if (null === $patch) {
                continue;
            }
            if (null === $first) {
                $first = $patch;
                continue;
            }
            $dot = 0.0;
            foreach ($patch as $k => $v) {
                $dot += $v * $first[$k];
            }
            $sum += $dot;
            ++$count;
        }

        return 0 === $count ? -1.0 : $sum / $count;
    }

    /**
     * What an image shows of a patch of level ground, without its mean, of length one; the lens is as good as even over it.
     *
     * @return ?list<float> null where it is not shown, or nothing is seen on it
     */
    private static function patch(OrientedImages $images, GreyImage $grey, int $i, float $e, float $n, float $h, float $spacing): ?array
    {
        $m = $images->rotations[$i];
        [$pe, $pn, $ph] = $images->positions[$i];
        [$de, $dn, $dh] = [$e - $pe, $n - $pn, $h - $ph];
        $x = $m[0] * $de + $m[3] * $dn + $m[6] * $dh;
        $y = $m[1] * $de + $m[4] * $dn + $m[7] * $dh;
        $z = $m[2] * $de + $m[5] * $dn + $m[8] * $dh;
        if ($z > -1e-6) {
            return null;
        }
        [$u, $v] = [-$x / $z, $y / $z];
        [$px, $py] = Lens::pixel($images->camera, $u, $v);
        [$uu, $uv, $vu, $vv] = Lens::slopes($images->camera, $u, $v);
        // A metre east and a metre north, in pixels.
        $scale = $spacing / $grey->scale;
        [$ue, $ve] = [(-$m[0] - $u * $m[2]) / $z, ($m[1] - $v * $m[2]) / $z];
        [$un, $vn] = [(-$m[3] - $u * $m[5]) / $z, ($m[4] - $v * $m[5]) / $z];
        $xe = $scale * ($uu * $ue + $uv * $ve);
        $ye = $scale * ($vu * $ue + $vv * $ve);
        $xn = $scale * ($uu * $un + $uv * $vn);
        $yn = $scale * ($vu * $un + $vv * $vn);
        $px = $px / $grey->scale - 0.5;
        $py = $py / $grey->scale - 0.5;
        $reach = self::HALF * max(abs($xe) + abs($xn), abs($ye) + abs($yn));
        [$w, $values] = [$grey->width, $grey->v];
        if ($px < $reach || $py < $reach || $px + $reach >= $w - 1 || $py + $reach >= $grey->height - 1) {
            return null;
        }
        $patch = [];
        $sum = 0.0;
        for ($q = -self::HALF; $q <= self::HALF; ++$q) {
            $ax = $px + $q * $xn - self::HALF * $xe;
            $ay = $py + $q * $yn - self::HALF * $ye;
            for ($p = 0; $p <= 2 * self::HALF; ++$p) {
                $c = (int) $ax;
                $r = (int) $ay;
                $fx = $ax - $c;
                $k = $r * $w + $c;
                $a = $values[$k];
                $b = $values[$k + $w];
                $top = $a + $fx * ($values[$k + 1] - $a);
                $value = $top + ($ay - $r) * ($b + $fx * ($values[$k + $w + 1] - $b) - $top);
                $sum += $value;
                $patch[] = $value;
                $ax += $xe;
                $ay += $ye;
            }
        }
        $mean = $sum / \count($patch);
        $length = 0.0;
        foreach ($patch as $k => $value) {
            $value -= $mean;
            $patch[$k] = $value;
            $length += $value * $value;
        }
        // Less than two grey values up and down is the noise of the sensor.
        if ($length < 4.0 * \count($patch)) {
            return null;
        }
        $by = 1.0 / sqrt($length);
        foreach ($patch as $k => $value) {
            $patch[$k] = $value * $by;
        }

        return $patch;
    }

    /**
     * Lowest and highest of the cells about a place.
     *
     * @return ?array{float, float} null where none of them says anything
     */
    private function near(float $e, float $n): ?array
    {
        $column = (int) (($e - $this->west) / $this->cell);
        $row = (int) (($this->north - $n) / $this->cell);
        $low = \INF;
        $high = -\INF;
        for ($r = max(0, $row - 1); $r <= min($this->rows - 1, $row + 1); ++$r) {
            for ($c = max(0, $column - 1); $c <= min($this->columns - 1, $column + 1); ++$c) {
                $h = $this->h[$r * $this->columns + $c];
                if (null !== $h) {
                    $low = min($low, $h);
                    $high = max($high, $h);
                }
            }
        }

        return $high < $low ? null : [$low, $high];
    }

    /** Without cells that stand out from the middle one of their neighbours. */
    private function cleaned(float $most): self
    {
        $h = $this->h;
        for ($row = 0; $row < $this->rows; ++$row) {
            for ($column = 0; $column < $this->columns; ++$column) {
                $k = $row * $this->columns + $column;
                if (null === $this->h[$k]) {
                    continue;
                }
                $around = [];
                for ($r = max(0, $row - 2); $r <= min($this->rows - 1, $row + 2); ++$r) {
                    for ($c = max(0, $column - 2); $c <= min($this->columns - 1, $column + 2); ++$c) {
                        $other = $this->h[$r * $this->columns + $c];
                        if (null !== $other && ($r !== $row || $c !== $column)) {
                            $around[] = $other;
                        }
                    }
                }
                sort($around);
                $middle = $around[intdiv(\count($around), 2)] ?? null;
                if (\count($around) < 3 || null === $middle || abs($this->h[$k] - $middle) > $most + $this->cell) {
                    $h[$k] = null;
                }
            }
        }

        return new self($this->west, $this->north, $this->cell, $this->columns, $this->rows, $h, $this->score);
    }

    /** Share of the cells that have a height. */
    public function completeness(): float
    {
        return \count(array_filter($this->h, static fn (?float $h): bool => null !== $h)) / max(1, \count($this->h));
    }

    /** Height between the middles of cells, of those that have one; null where none does. */
    public function at(float $e, float $n): ?float
    {
        $x = ($e - $this->west) / $this->cell - 0.5;
        $y = ($this->north - $n) / $this->cell - 0.5;
        $i = (int) floor($x);
        $j = (int) floor($y);
        $sum = $weight = 0.0;
        foreach ([[0, 0], [1, 0], [0, 1], [1, 1]] as [$p, $q]) {
            [$c, $r] = [$i + $p, $j + $q];
            if ($c < 0 || $r < 0 || $c >= $this->columns || $r >= $this->rows || null === $h = $this->h[$r * $this->columns + $c]) {
                continue;
            }
            $w = 1e-9 + (1.0 - abs($x - $c)) * (1.0 - abs($y - $r));
            $sum += $w * $h;
            $weight += $w;
        }

        return $weight > 0.0 ? $sum / $weight : null;
    }
}
