<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/** Heights on a square grid, row by row from the south-west; NAN where nothing is known. Flat; metres. */
final class HeightGrid
{
    /** @param list<float> $h of width times height cells */
    public function __construct(
        public readonly float $west, public readonly float $south, public readonly float $cell, public readonly int $width,
        public readonly int $height, public array $h,
    ) {
    }

    /**
     * Another grid of the same cells.
     *
     * @param list<float> $h
     */
    public function with(array $h): self
    {
        return new self($this->west, $this->south, $this->cell, $this->width, $this->height, $h);
    }

    /**
     * What is not known is filled from what is around it: means of ever larger squares, down again bilinearly (push and pull,
     * Gortler et al. 1996, section 3.4).
     */
    public function filled(): self
    {
        [$h, $w, $n] = [$this->h, $this->width, $this->height];
        $gaps = false;
        foreach ($h as $v) {
            if (is_nan($v)) {
                $gaps = true;
                break;
            }
        }
        if (!$gaps || 1 === $w * $n) {
            return $gaps ? $this->with([0.0]) : $this;
        }
        [$w2, $n2] = [intdiv($w + 1, 2), intdiv($n + 1, 2)];
        $half = [];
        for ($j = 0; $j < $n2; ++$j) {
            for ($i = 0; $i < $w2; ++$i) {
                $sum = 0.0;
                $count = 0;
                for ($b = 2 * $j; $b < $n && $b < 2 * $j + 2; ++$b) {
                    for ($a = 2 * $i; $a < $w && $a < 2 * $i + 2; ++$a) {
                        $v = $h[$b * $w + $a];
                        if (!is_nan($v)) {
                            $sum += $v;
                            ++$count;
                        }
                    }
                }
                $half[] = 0 === $count ? \NAN : $sum / $count;
            }
        }
        $coarse = (new self($this->west, $this->south, 2.0 * $this->cell, $w2, $n2, $half))->filled();
        for ($j = 0, $k = 0; $j < $n; ++$j) {
            for ($i = 0; $i < $w; ++$i, ++$k) {
                if (is_nan($h[$k])) {
                    $h[$k] = $coarse->at($this->west + ($i + 0.5) * $this->cell, $this->south + ($j + 0.5) * $this->cell);
                }
            }
        }

        return $this->with($h);
    }

    /** Bilinear between the middles of the cells; beyond the outermost as they are. */
    public function at(float $x, float $y): float
    {
        $u = max(0.0, min($this->width - 1.0, ($x - $this->west) / $this->cell - 0.5));
        $v = max(0.0, min($this->height - 1.0, ($y - $this->south) / $this->cell - 0.5));
        [$i, $j] = [(int) $u, (int) $v];
        [$a, $b] = [min($i + 1, $this->width - 1), min($j + 1, $this->height - 1)];
        [$s, $t] = [$u - $i, $v - $j];
        [$w, $h] = [$this->width, $this->h];

        return (1.0 - $t) * ((1.0 - $s) * $h[$j * $w + $i] + $s * $h[$j * $w + $a])
            + $t * ((1.0 - $s) * $h[$b * $w + $i] + $s * $h[$b * $w + $a]);
    }

    /** @return list<float> rise over run in the middle of every cell */
    public function slopes(): array
    {
        $slopes = [];
        [$h, $w, $n] = [$this->h, $this->width, $this->height];
        for ($j = 0; $j < $n; ++$j) {
            [$below, $above] = [max(0, $j - 1), min($n - 1, $j + 1)];
            for ($i = 0; $i < $w; ++$i) {
                [$left, $right] = [max(0, $i - 1), min($w - 1, $i + 1)];
                $slopes[] = hypot(
                    ($h[$j * $w + $right] - $h[$j * $w + $left]) / max(1, $right - $left),
                    ($h[$above * $w + $i] - $h[$below * $w + $i]) / max(1, $above - $below),
                ) / $this->cell;
            }
        }

        return $slopes;
    }

    /** Opening by a square of 2r + 1 cells: what is narrower than it and stands up is taken off. */
    public function opened(int $r): self
    {
        return $this->with(self::slid(self::slid($this->h, $this->width, $this->height, $r, false), $this->width, $this->height, $r, true));
    }

    /** Mean of a square of 2r + 1 cells. */
    public function smoothed(int $r): self
    {
        return $this->with(self::turned(self::mean(self::turned(
            self::mean($this->h, $this->width, $this->height, $r), $this->width, $this->height,
        ), $this->height, $this->width, $r), $this->height, $this->width));
    }

    /**
     * Least or greatest of a sliding square, along rows, then along columns.
     *
     * @param list<float> $h
     *
     * @return list<float>
     */
    private static function slid(array $h, int $w, int $n, int $r, bool $greatest): array
    {
        $h = self::turned(self::line($h, $w, $n, $r, $greatest), $w, $n);

        return self::turned(self::line($h, $n, $w, $r, $greatest), $n, $w);
    }

    /**
     * Along every row, with the same few steps a cell whatever the width (van Herk 1992).
     *
     * @param list<float> $h
     *
     * @return list<float>
     */
    private static function line(array $h, int $w, int $n, int $r, bool $greatest): array
    {
        $sign = $greatest ? -1.0 : 1.0;
        $size = 2 * $r + 1;
        $length = $w + 2 * $r;
        $out = [];
        for ($j = 0; $j < $n; ++$j) {
            $row = $j * $w;
            // Forward from the begin of each stretch, backward from its end; infinite beyond the edges.
            $forward = $backward = [];
            $m = \INF;
            for ($i = 0; $i < $length; ++$i) {
                $v = $i >= $r && $i < $r + $w ? $sign * $h[$row + $i - $r] : \INF;
                $m = 0 === $i % $size ? $v : ($v < $m ? $v : $m);
                $forward[] = $m;
            }
            $m = \INF;
            for ($i = $length - 1; $i >= 0; --$i) {
                $v = $i >= $r && $i < $r + $w ? $sign * $h[$row + $i - $r] : \INF;
                $m = $size - 1 === $i % $size ? $v : ($v < $m ? $v : $m);
                $backward[$i] = $m;
            }
            for ($i = 0; $i < $w; ++$i) {
                $a = $backward[$i];
                $b = $forward[$i + 2 * $r];
                $out[] = $sign * ($a < $b ? $a : $b);
            }
        }

        return $out;
    }

    /**
     * @param list<float> $h
     *
     * @return list<float>
     */
    private static function mean(array $h, int $w, int $n, int $r): array
    {
        $out = [];
        for ($j = 0; $j < $n; ++$j) {
            $sums = [0.0];
            for ($i = 0, $sum = 0.0; $i < $w; ++$i) {
                $sums[] = $sum += $h[$j * $w + $i];
            }
            for ($i = 0; $i < $w; ++$i) {
                $a = max(0, $i - $r);
                $b = min($w, $i + $r + 1);
                $out[] = ($sums[$b] - $sums[$a]) / ($b - $a);
            }
        }

        return $out;
    }

    /**
     * Rows as columns.
     *
     * @param list<float> $h
     *
     * @return list<float>
     */
    private static function turned(array $h, int $w, int $n): array
    {
        $out = [];
        for ($i = 0; $i < $w; ++$i) {
            for ($j = 0; $j < $n; ++$j) {
                $out[] = $h[$j * $w + $i];
            }
        }

        return $out;
    }
}
