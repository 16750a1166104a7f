<?php

declare(strict_types=1);

namespace Mensura\Matching;

/**
 * Corners of an image and what their surroundings look like: the lesser eigenvalue of the structure tensor, here the ratio of its
 * determinant and trace (Noble 1988), at several sizes, the strongest in every part of the image; gradients about each, turned by
 * their main direction, in 4 by 4 cells of 8 directions (Lowe 2004, "Distinctive image features from scale-invariant keypoints").
 */
final class Features
{
    public const LENGTH = 128;
    private const OCTAVES = 3;
    private const CELLS = 8;
    /** Pixels from the edge at which surroundings are whole. */
    private const EDGE = 12;
    /** Share of the strongest of a part below which a corner is none. */
    private const WEAK = 0.02;

    /**
     * @param list<float> $x           pixels of the image as it was taken
     * @param list<float> $y
     * @param list<float> $descriptors one after the other, each of length one
     */
    private function __construct(public readonly array $x, public readonly array $y, public readonly array $descriptors)
    {
    }

    public function count(): int
    {
        return \count($this->x);
    }

    /**
     * Of each feature which parts of it are greater than they are on the whole: four numbers of 32 bits.
     *
     * @return list<int> one after the other
     */
    public function bits(): array
    {
        $n = $this->count();
        $mean = array_fill(0, self::LENGTH, 0.0);
        foreach ($this->descriptors as $k => $v) {
            $mean[$k % self::LENGTH] += $v;
        }
        foreach ($mean as $k => $v) {
            $mean[$k] = $v / max(1, $n);
        }
        $bits = [];
        for ($at = 0, $end = $n * self::LENGTH; $at < $end; $at += 32) {
            $word = 0;
            $of = $at % self::LENGTH;
            for ($k = 0; $k < 32; ++$k) {
                $word = ($word << 1) | ($this->descriptors[$at + $k] > $mean[$of + $k] ? 1 : 0);
            }
            $bits[] = $word;
        }

        return $bits;
    }

    /** @param int $most about how many */
    public static function of(GreyImage $image, int $most): self
    {
        $x = $y = $descriptors = [];
        $level = $image;
        $share = 0.72;
        for ($octave = 0; $octave < self::OCTAVES && min($level->width, $level->height) > 6 * self::EDGE; ++$octave) {
            $smooth = $level->smooth();
            [$gx, $gy] = self::gradients($smooth);
            foreach (self::corners($level->width, $level->height, $gx, $gy, (int) ceil($share * $most)) as [$u, $v]) {
                $direction = self::direction($level->width, $gx, $gy, $u, $v);
                $descriptor = self::descriptor($level->width, $level->height, $gx, $gy, $u, $v, $direction);
                if (null !== $descriptor) {
                    $x[] = ($u + 0.5) * $level->scale;
                    $y[] = ($v + 0.5) * $level->scale;
                    array_push($descriptors, ...$descriptor);
                }
            }
            $share *= 0.3;
            $level = $level->half();
        }

        return new self($x, $y, $descriptors);
    }

    /** @return array{list<float>, list<float>} by central differences */
    private static function gradients(GreyImage $image): array
    {
        [$w, $h, $v] = [$image->width, $image->height, $image->v];
        $gx = $gy = [];
        for ($y = 0; $y < $h; ++$y) {
            $at = $y * $w;
            $up = $y > 0 ? -$w : 0;
            $down = $y < $h - 1 ? $w : 0;
            for ($x = 0; $x < $w; ++$x) {
                $k = $at + $x;
                $gx[] = 0.5 * ($v[$x < $w - 1 ? $k + 1 : $k] - $v[$x > 0 ? $k - 1 : $k]);
                $gy[] = 0.5 * ($v[$k + $down] - $v[$k + $up]);
            }
        }

        return [$gx, $gy];
    }

    /**
     * @param list<float> $gx
     * @param list<float> $gy
     *
     * @return list<array{float, float}> between pixels, counted from the middle of the first
     */
    private static function corners(int $w, int $h, array $gx, array $gy, int $most): array
    {
        $xx = $yy = $xy = [];
        foreach ($gx as $k => $a) {
            $b = $gy[$k];
            $xx[] = $a * $a;
            $yy[] = $b * $b;
            $xy[] = $a * $b;
        }
        $xx = GreyImage::blurred($xx, $w, $h);
        $yy = GreyImage::blurred($yy, $w, $h);
        $xy = GreyImage::blurred($xy, $w, $h);
        $r = [];
        foreach ($xx as $k => $a) {
            $b = $yy[$k];
            $c = $xy[$k];
            $r[] = ($a * $b - $c * $c) / ($a + $b + 1e-9);
        }
        $cells = [];
        for ($y = self::EDGE; $y < $h - self::EDGE; ++$y) {
            for ($x = self::EDGE; $x < $w - self::EDGE; ++$x) {
                $k = $y * $w + $x;
                $c = $r[$k];
                if ($c <= $r[$k - 1] || $c < $r[$k + 1] || $c <= $r[$k - $w] || $c < $r[$k + $w]
                    || $c <= $r[$k - $w - 1] || $c <= $r[$k - $w + 1] || $c < $r[$k + $w - 1] || $c < $r[$k + $w + 1]) {
                    continue;
                }
                $cells[intdiv($y * self::CELLS, $h) * self::CELLS + intdiv($x * self::CELLS, $w)][$k] = $c;
            }
        }
        $found = [];
        $each = max(1, (int) ceil($most / (self::CELLS * self::CELLS)));
        foreach ($cells as $strength) {
            arsort($strength);
            $least = self::WEAK * reset($strength);
            foreach (\array_slice($strength, 0, $each, true) as $k => $c) {
                if ($c <= $least) {
                    break;
                }
                // A parabola through the neighbours of each direction.
                $dx = self::top($r[$k - 1], $c, $r[$k + 1]);
                $dy = self::top($r[$k - $w], $c, $r[$k + $w]);
                $found[] = [$k % $w + $dx, intdiv($k, $w) + $dy];
            }
        }

        return $found;
    }

    private static function top(float $a, float $b, float $c): float
    {
        $bend = $a - 2.0 * $b + $c;

        return $bend < 0.0 ? max(-0.5, min(0.5, 0.5 * ($a - $c) / $bend)) : 0.0;
    }

    /**
     * The direction most of the gradients about a place have, radians.
     *
     * @param list<float> $gx
     * @param list<float> $gy
     */
    private static function direction(int $w, array $gx, array $gy, float $u, float $v): float
    {
        $bins = array_fill(0, 36, 0.0);
        [$i, $j] = [(int) round($u), (int) round($v)];
        for ($dy = -7; $dy <= 7; ++$dy) {
            for ($dx = -7; $dx <= 7; ++$dx) {
                $k = ($j + $dy) * $w + $i + $dx;
                [$a, $b] = [$gx[$k], $gy[$k]];
                $weight = sqrt($a * $a + $b * $b) * exp(-($dx * $dx + $dy * $dy) / 24.5);
                $bins[(int) (18.0 * (atan2($b, $a) / \M_PI + 1.0)) % 36] += $weight;
            }
        }
        for ($pass = 0; $pass < 3; ++$pass) {
            $old = $bins;
            for ($k = 0; $k < 36; ++$k) {
                $bins[$k] = ($old[($k + 35) % 36] + $old[$k] + $old[($k + 1) % 36]) / 3.0;
            }
        }
        $best = 0;
        for ($k = 1; $k < 36; ++$k) {
            $best = $bins[$k] > $bins[$best] ? $k : $best;
        }
        $top = $best + 0.5 + self::top($bins[$best > 0 ? $best - 1 : 35], $bins[$best], $bins[$best < 35 ? $best + 1 : 0]);

        return ($top / 18.0 - 1.0) * \M_PI;
    }

    /**
     * @param list<float> $gx
     * @param list<float> $gy
     *
     * @return ?list<float> null where nothing is seen there
     */
    private static function descriptor(int $w, int $h, array $gx, array $gy, float $u, float $v, float $direction): ?array
    {
        [$c, $s] = [cos($direction), sin($direction)];
        $bins = array_fill(0, self::LENGTH, 0.0);
        for ($q = 0; $q < 16; ++$q) {
            for ($p = 0; $p < 16; ++$p) {
                [$dx, $dy] = [$p - 7.5, $q - 7.5];
                $px = (int) round($u + $c * $dx - $s * $dy);
                $py = (int) round($v + $s * $dx + $c * $dy);
                if ($px < 1 || $py < 1 || $px >= $w - 1 || $py >= $h - 1) {
                    continue;
                }
                $k = $py * $w + $px;
                [$a, $b] = [$c * $gx[$k] + $s * $gy[$k], $c * $gy[$k] - $s * $gx[$k]];
                $weight = sqrt($a * $a + $b * $b) * exp(-($dx * $dx + $dy * $dy) / 128.0);
                // Shared among the cells and directions it lies between.
                $cx = $p / 4.0 - 0.375;
                $cy = $q / 4.0 - 0.375;
                $o = 4.0 * (atan2($b, $a) / \M_PI + 1.0);
                $i0 = (int) floor($cx);
                $j0 = (int) floor($cy);
                $o0 = (int) $o;
                [$fx, $fy, $fo] = [$cx - $i0, $cy - $j0, $o - $o0];
                for ($j = 0; $j < 2; ++$j) {
                    $row = $j0 + $j;
                    if ($row < 0 || $row > 3) {
                        continue;
                    }
                    $wy = $weight * (0 === $j ? 1.0 - $fy : $fy);
                    for ($i = 0; $i < 2; ++$i) {
                        $column = $i0 + $i;
                        if ($column < 0 || $column > 3) {
                            continue;
                        }
                        $wx = $wy * (0 === $i ? 1.0 - $fx : $fx);
                        $at = 8 * (4 * $row + $column);
                        $bins[$at + $o0 % 8] += $wx * (1.0 - $fo);
                        $bins[$at + ($o0 + 1) % 8] += $wx * $fo;
                    }
                }
            }
        }

        return self::normal($bins);
    }

    /**
     * Of length one, no part more than 0.2 of it: one bright edge does not speak for all.
     *
     * @param list<float> $bins
     *
     * @return ?list<float>
     */
    private static function normal(array $bins): ?array
    {
        for ($pass = 0; $pass < 2; ++$pass) {
            $sum = 0.0;
            foreach ($bins as $b) {
                $sum += $b * $b;
            }
            if ($sum <= 1e-12) {
                return null;
            }
            $by = 1.0 / sqrt($sum);
            foreach ($bins as $k => $b) {
                $bins[$k] = 0 === $pass ? min(0.2, $b * $by) : $b * $by;
            }
        }

        return $bins;
    }
}
