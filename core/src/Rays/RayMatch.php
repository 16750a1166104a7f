<?php

declare(strict_types=1);

namespace Mensura\Rays;

/**
 * The same place found in other oriented images: along the ray of a pixel the depth at which what it shows looks alike in most of
 * them, and how the surface there leans; then every image by itself, so that its residual says something (normalised cross-correlation
 * guided by the epipolar line; Bethmann and Luhmann 2010, "Least-squares matching with advanced geometric transformation models").
 */
final class RayMatch
{
    /** Half a window, pixels. */
    private const HALF = 7;
    /** Images looked at. */
    private const MOST = 9;
    /** Pixels of all images that are open at once, four bytes each. */
    private const MOST_PIXELS = 120_000_000;
    /** Correlation below which an image does not show the place. */
    private const LEAST = 0.75;
    /** Pixels an image may be off where the others have the place. */
    private const OFF = 2.0;
    /** Surfaces that are tried: slopes of the depth along x and y of the image, per unit of its direction. */
    private const LEANS = [
        [0.0, 0.0], [0.55, 0.0], [-0.55, 0.0], [1.2, 0.0], [-1.2, 0.0], [0.0, 0.7], [0.0, -0.7], [0.0, 1.5], [0.0, -1.5],
    ];

    /** @var array<int, \GdImage> */
    private array $opened = [];

    /** @param \Closure(int): \GdImage $open an image in true colour */
    public function __construct(private readonly ImageRays $rays, private readonly \Closure $open)
    {
    }

    /**
     * @param array{float, float} $between depths
     *
     * @return list<array{int, float, float, float}> image, x, y, correlation; the picked one is not among them
     */
    public function find(int $image, float $x, float $y, array $between): array
    {
        $first = $this->patch($image, $x, $y, [1.0, 0.0, 0.0, 1.0]);
        if (null === $first) {
            return [];
        }
        $others = $this->others($image, $x, $y, $between);
        [$depth, $lean] = $this->best($first, $others, $image, $x, $y, $between);
        $found = [];
        foreach ($others as $other) {
            [$way, $at] = $this->way($image, $x, $y, $depth, $lean, $other) ?? [null, null];
            if (null === $way || null === $at) {
                continue;
            }
            [$score, $u, $v] = $this->settled($first, $other, $at[0], $at[1], $way);
            if ($score >= self::LEAST && hypot($u - $at[0], $v - $at[1]) < self::OFF) {
                $found[] = [$other, $u, $v, $score];
            }
        }

        return $found;
    }

    /**
     * @param array{float, float} $between
     *
     * @return list<int> that may show it, the nearest first
     */
    private function others(int $image, float $x, float $y, array $between): array
    {
        $near = [];
        $from = $this->rays->images->positions[$image];
        foreach ($this->rays->images->positions as $i => $p) {
            if ($i !== $image && \count($this->rays->line($image, $x, $y, $i, ...$between)) > 1) {
                $near[$i] = hypot(hypot($p[0] - $from[0], $p[1] - $from[1]), $p[2] - $from[2]);
            }
        }
        asort($near);

        // The picked one is open too.
        $most = intdiv(self::MOST_PIXELS, max(1, $this->rays->images->width * $this->rays->images->height)) - 1;

        return \array_slice(array_keys($near), 0, max(2, min(self::MOST, $most)));
    }

    /**
     * @param list<float>         $first
     * @param list<int>           $others
     * @param array{float, float} $between
     *
     * @return array{float, array{float, float}} depth, and how the surface leans
     */
    private function best(array $first, array $others, int $image, float $x, float $y, array $between): array
    {
        $longest = 1.0;
        foreach ($others as $i) {
            $line = $this->rays->line($image, $x, $y, $i, ...$between);
            $end = $line[\count($line) - 1];
            $longest = max($longest, hypot($end[0] - $line[0][0], $end[1] - $line[0][1]));
        }
        // A step moves what is shown by a pixel at most.
        $steps = (int) min(800, max(20, ceil($longest)));
        $scores = [];
        for ($k = 0; $k <= $steps; ++$k) {
            $scores[] = $this->score($first, $others, $image, $x, $y, self::between($between, $k / $steps), [0.0, 0.0]);
        }
        $at = (int) array_search(max($scores), $scores, true);
        $best = [$scores[$at], $at / $steps, [0.0, 0.0]];
        foreach (self::LEANS as $lean) {
            for ($k = -2; $k <= 2; ++$k) {
                $t = max(0.0, min(1.0, ($at + 0.5 * $k) / $steps));
                $score = $this->score($first, $others, $image, $x, $y, self::between($between, $t), $lean);
                if ($score > $best[0]) {
                    $best = [$score, $t, $lean];
                }
            }
        }

        return [self::between($between, $best[1]), $best[2]];
    }

    /** @param array{float, float} $depths */
    private static function between(array $depths, float $t): float
    {
        return 1.0 / ((1.0 - $t) / $depths[0] + $t / $depths[1]);
    }

    /**
     * Mean correlation of the better half: others may be hidden.
     *
     * @param list<float>         $first
     * @param list<int>           $others
     * @param array{float, float} $lean
     */
    private function score(array $first, array $others, int $image, float $x, float $y, float $depth, array $lean): float
    {
        $scores = [];
        foreach ($others as $other) {
            [$way, $at] = $this->way($image, $x, $y, $depth, $lean, $other) ?? [null, null];
            $patch = null === $way || null === $at ? null : $this->patch($other, $at[0], $at[1], $way);
            if (null !== $patch) {
                $scores[] = self::alike($first, $patch);
            }
        }
        if ([] === $scores) {
            return -1.0;
        }
        rsort($scores);
        $half = \array_slice($scores, 0, intdiv(\count($scores) + 1, 2));

        return array_sum($half) / \count($half);
    }

    /**
     * Where another image shows the place at a depth, and what a pixel right and down is there.
     *
     * @param array{float, float} $lean
     *
     * @return ?array{array{float, float, float, float}, array{float, float}} xx, xy, yx, yy
     */
    private function way(int $image, float $x, float $y, float $depth, array $lean, int $other): ?array
    {
        $f = $this->rays->images->camera[0];
        $pixel = fn (float $dx, float $dy): ?array => $this->rays->images->pixel($other, ...[
            ...$this->rays->at($image, $x + $dx, $y + $dy, $depth * (1.0 + ($lean[0] * $dx + $lean[1] * $dy) / $f)), -self::HALF,
        ]);
        [$at, $right, $down] = [$pixel(0.0, 0.0), $pixel(self::HALF, 0.0), $pixel(0.0, self::HALF)];
        if (null === $at || null === $right || null === $down) {
            return null;
        }

        return [[
            ($right[0] - $at[0]) / self::HALF, ($down[0] - $at[0]) / self::HALF, ($right[1] - $at[1]) / self::HALF,
            ($down[1] - $at[1]) / self::HALF,
        ], $at];
    }

    /**
     * The best place about one, to a part of a pixel.
     *
     * @param list<float>                        $first
     * @param array{float, float, float, float}  $way
     *
     * @return array{float, float, float} correlation, x, y
     */
    private function settled(array $first, int $other, float $u, float $v, array $way): array
    {
        $at = function (float $p, float $q) use ($first, $other, $way): float {
            $patch = $this->patch($other, $p, $q, $way);

            return null === $patch ? -1.0 : self::alike($first, $patch);
        };
        $score = $at($u, $v);
        foreach ([1.0, 0.5, 0.25] as $step) {
            for ($k = 0; $k < 3; ++$k) {
                $best = [$score, $u, $v];
                foreach ([[-1, 0], [1, 0], [0, -1], [0, 1]] as [$i, $j]) {
                    $s = $at($u + $i * $step, $v + $j * $step);
                    if ($s > $best[0]) {
                        $best = [$s, $u + $i * $step, $v + $j * $step];
                    }
                }
                if ($best[0] <= $score) {
                    break;
                }
                [$score, $u, $v] = $best;
            }
        }
        $top = static function (float $a, float $b, float $c): float {
            $bend = $a - 2.0 * $b + $c;

            return $bend < 0.0 ? max(-0.5, min(0.5, 0.5 * ($a - $c) / $bend)) : 0.0;
        };
        $du = 0.5 * $top($at($u - 0.5, $v), $score, $at($u + 0.5, $v));
        $dv = 0.5 * $top($at($u, $v - 0.5), $score, $at($u, $v + 0.5));

        return [$score, $u + $du, $v + $dv];
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function alike(array $a, array $b): float
    {
        $sum = 0.0;
        foreach ($a as $k => $v) {
            $sum += $v * $b[$k];
        }

        return $sum;
    }

    /**
     * Brightness of a window, without its mean, of length one.
     *
     * @param array{float, float, float, float} $way
     *
     * @return ?list<float> null where it leaves the image, or nothing is seen in it
     */
    private function patch(int $image, float $x, float $y, array $way): ?array
    {
        $gd = $this->opened[$image] ??= ($this->open)($image);
        [$a, $b, $c, $d] = $way;
        [$x, $y] = [$x - 0.5, $y - 0.5];
        $reach = self::HALF * max(abs($a) + abs($b), abs($c) + abs($d)) + 1.0;
        if ($x < $reach || $y < $reach || $x + $reach >= imagesx($gd) - 1 || $y + $reach >= imagesy($gd) - 1) {
            return null;
        }
        $patch = [];
        $sum = 0.0;
        for ($q = -self::HALF; $q <= self::HALF; ++$q) {
            for ($p = -self::HALF; $p <= self::HALF; ++$p) {
                $px = $x + $a * $p + $b * $q;
                $py = $y + $c * $p + $d * $q;
                [$i, $j] = [(int) $px, (int) $py];
                [$fx, $fy] = [$px - $i, $py - $j];
                $value = (1.0 - $fy) * ((1.0 - $fx) * self::grey($gd, $i, $j) + $fx * self::grey($gd, $i + 1, $j))
                    + $fy * ((1.0 - $fx) * self::grey($gd, $i, $j + 1) + $fx * self::grey($gd, $i + 1, $j + 1));
                $patch[] = $value;
                $sum += $value;
            }
        }
        $mean = $sum / \count($patch);
        $length = 0.0;
        foreach ($patch as $k => $value) {
            $patch[$k] = $value - $mean;
            $length += $patch[$k] * $patch[$k];
        }
        if ($length < 4.0 * \count($patch)) {
            return null;
        }
        $by = 1.0 / sqrt($length);

        return array_map(static fn (float $v): float => $v * $by, $patch);
    }

    /** Luma of ITU-R BT.601. */
    private static function grey(\GdImage $gd, int $x, int $y): float
    {
        $c = (int) imagecolorat($gd, $x, $y);

        return 0.299 * (($c >> 16) & 255) + 0.587 * (($c >> 8) & 255) + 0.114 * ($c & 255);
    }
}
