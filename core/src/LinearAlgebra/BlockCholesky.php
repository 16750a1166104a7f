<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/**
 * Sparse L D L' factorization of a symmetric positive semi-definite matrix whose unknowns come in blocks (a station's
 * coordinates, an orientation) that are already in elimination order.
 *
 * Symbolic analysis once, over blocks; numeric factorization as often as the values change: left-looking, a block column
 * at a time, after Davis (2006), "Direct Methods for Sparse Linear Systems", chapters 4 and 6. The selected inverse follows
 * Takahashi, Fagan and Chin (1973): every entry of the inverse on the pattern of L, without forming the rest.
 *
 * Matrix, factor and selected inverse share one layout, a flat list: of each block column the diagonal block, w by w (its
 * upper triangle counts), then the blocks below it, each row by row. {@see $diagonalAt} and {@see $upperAt} say where
 * the blocks of the matrix are.
 *
 * A pivot that falls below `$tolerance` times its own diagonal is reported as null and replaced by an infinite one, which
 * holds that unknown; the caller decides whether that is a defect.
 */
final class BlockCholesky
{
    /** Pivots below this fraction of the diagonal count as null: about a hundred times the rounding of a long strip-like net. */
    public const PIVOT_TOLERANCE = 1e-11;

    /** Number of unknowns. */
    public readonly int $size;

    /** Length of the lists of values. */
    public readonly int $valueCount;

    /** @var list<int> first unknown of each block */
    public readonly array $first;

    /** @var list<int> place of each diagonal block */
    public readonly array $diagonalAt;

    /** @var list<int> per block of the upper pattern, its place */
    public readonly array $upperAt;

    /** @var list<int> per block column, and one more: where its blocks below the diagonal begin */
    private array $start;

    /** @var list<int> block row of each of them, ascending in a column */
    private array $rows;

    /** @var list<int> place of each of them */
    private array $at;

    /** @var list<float> L in the layout, unit diagonal implied */
    private array $factor = [];

    /** @var list<float> reciprocals of D, 0 for a held unknown */
    private array $reciprocal = [];

    /**
     * Pattern of the upper triangle by block columns: for column k the block rows i < k (any order, no repeats).
     *
     * @param list<int> $widths     unknowns of each block, 1 to 3
     * @param list<int> $upperStart one more than blocks
     * @param list<int> $upperRow
     */
    public function __construct(private readonly array $widths, array $upperStart, array $upperRow)
    {
        $n = \count($widths);
        $first = [];
        $total = 0;
        foreach ($widths as $width) {
            $first[] = $total;
            $total += $width;
        }
        $this->first = $first;
        $this->size = $total;
        $parent = $ancestor = $mark = $n > 0 ? array_fill(0, $n, -1) : [];
        for ($k = 0; $k < $n; ++$k) {
            for ($p = $upperStart[$k], $end = $upperStart[$k + 1]; $p < $end; ++$p) {
                $i = $upperRow[$p];
                while (-1 !== $i && $i < $k) {
                    $next = $ancestor[$i];
                    $ancestor[$i] = $k;
                    if (-1 === $next) {
                        $parent[$i] = $k;
                    }
                    $i = $next;
                }
            }
        }
        $below = array_fill(0, max($n, 1), []);
        $nth = [];
        for ($k = 0; $k < $n; ++$k) {
            $mark[$k] = $k;
            for ($p = $upperStart[$k], $end = $upperStart[$k + 1]; $p < $end; ++$p) {
                for ($i = $upperRow[$p]; $mark[$i] !== $k; $i = $parent[$i]) {
                    $below[$i][] = $k;
                    $mark[$i] = $k;
                }
                $nth[] = \count($below[$upperRow[$p]]) - 1;
            }
        }
        $start = [0];
        $rows = $at = $diagonalAt = [];
        $place = 0;
        for ($j = 0; $j < $n; ++$j) {
            $width = $widths[$j];
            $diagonalAt[] = $place;
            $place += $width * $width;
            foreach ($below[$j] as $i) {
                $rows[] = $i;
                $at[] = $place;
                $place += $width * $widths[$i];
            }
            $start[] = \count($rows);
        }
        $upperAt = [];
        foreach ($upperRow as $p => $i) {
            $upperAt[] = $at[$start[$i] + $nth[$p]];
        }
        $this->valueCount = $place;
        $this->start = $start;
        $this->rows = $rows;
        $this->at = $at;
        $this->diagonalAt = $diagonalAt;
        $this->upperAt = $upperAt;
    }

    /**
     * @param list<float>      $values in the layout
     * @param array<int, true> $held   unknowns to hold from the start
     *
     * @return list<int> further unknowns with a null pivot; they are held too
     */
    public function factor(array $values, array $held = [], float $tolerance = self::PIVOT_TOLERANCE): array
    {
        $n = \count($this->widths);
        $widths = $this->widths;
        $first = $this->first;
        $diagonalAt = $this->diagonalAt;
        $start = $this->start;
        $rows = $this->rows;
        $at = $this->at;
        $x = $values;
        $d = array_fill(0, max($this->size, 1), 0.0);
        $reciprocal = $d;
        $head = $link = $next = array_fill(0, max($n, 1), -1);
        $null = [];
        for ($j = 0; $j < $n; ++$j) {
            $w = $widths[$j];
            $dj = $diagonalAt[$j];
            $from = $start[$j];
            $to = $start[$j + 1];
            $own = [];
            for ($c = 0; $c < $w; ++$c) {
                $own[] = $x[$dj + $c * ($w + 1)];
            }
            $k = $head[$j];
            while ($k >= 0) {
                $following = $link[$k];
                $p = $next[$k];
                $o = $at[$p];
                $wk = $widths[$k];
                $fk = $first[$k];
                $end = $start[$k + 1];
                $t = $from;
                if (3 === $w && 1 === $wk) {
                    $l0 = $x[$o];
                    $l1 = $x[$o + 1];
                    $l2 = $x[$o + 2];
                    $u0 = $l0 * $d[$fk];
                    $u1 = $l1 * $d[$fk];
                    $u2 = $l2 * $d[$fk];
                    $x[$dj] = $x[$dj] - $l0 * $u0;
                    $x[$dj + 1] = $x[$dj + 1] - $l0 * $u1;
                    $x[$dj + 2] = $x[$dj + 2] - $l0 * $u2;
                    $x[$dj + 4] = $x[$dj + 4] - $l1 * $u1;
                    $x[$dj + 5] = $x[$dj + 5] - $l1 * $u2;
                    $x[$dj + 8] = $x[$dj + 8] - $l2 * $u2;
                    for ($q = $p + 1; $q < $end; ++$q) {
                        $i = $rows[$q];
                        while ($rows[$t] !== $i) {
                            ++$t;
                        }
                        $a = $at[$q];
                        $b = $at[$t];
                        for ($last = $a + $widths[$i]; $a < $last; ++$a) {
                            $l = $x[$a];
                            $x[$b] = $x[$b] - $l * $u0;
                            $x[$b + 1] = $x[$b + 1] - $l * $u1;
                            $x[$b + 2] = $x[$b + 2] - $l * $u2;
                            $b += 3;
                        }
                    }
                } elseif (3 === $w && 3 === $wk) {
                    $d0 = $d[$fk];
                    $d1 = $d[$fk + 1];
                    $d2 = $d[$fk + 2];
                    $l00 = $x[$o];
                    $l01 = $x[$o + 1];
                    $l02 = $x[$o + 2];
                    $l10 = $x[$o + 3];
                    $l11 = $x[$o + 4];
                    $l12 = $x[$o + 5];
                    $l20 = $x[$o + 6];
                    $l21 = $x[$o + 7];
                    $l22 = $x[$o + 8];
                    $u00 = $l00 * $d0;
                    $u01 = $l01 * $d1;
                    $u02 = $l02 * $d2;
                    $u10 = $l10 * $d0;
                    $u11 = $l11 * $d1;
                    $u12 = $l12 * $d2;
                    $u20 = $l20 * $d0;
                    $u21 = $l21 * $d1;
                    $u22 = $l22 * $d2;
                    $x[$dj] -= ($l00 * $u00 + $l01 * $u01 + $l02 * $u02);
                    $x[$dj + 1] -= ($l00 * $u10 + $l01 * $u11 + $l02 * $u12);
                    $x[$dj + 2] -= ($l00 * $u20 + $l01 * $u21 + $l02 * $u22);
                    $x[$dj + 4] -= ($l10 * $u10 + $l11 * $u11 + $l12 * $u12);
                    $x[$dj + 5] -= ($l10 * $u20 + $l11 * $u21 + $l12 * $u22);
                    $x[$dj + 8] -= ($l20 * $u20 + $l21 * $u21 + $l22 * $u22);
                    for ($q = $p + 1; $q < $end; ++$q) {
                        $i = $rows[$q];
                        while ($rows[$t] !== $i) {
                            ++$t;
                        }
                        $a = $at[$q];
                        $b = $at[$t];
                        for ($last = $a + 3 * $widths[$i]; $a < $last; $a += 3) {
                            $l0 = $x[$a];
                            $l1 = $x[$a + 1];
                            $l2 = $x[$a + 2];
                            $x[$b] -= ($l0 * $u00 + $l1 * $u01 + $l2 * $u02);
                            $x[$b + 1] -= ($l0 * $u10 + $l1 * $u11 + $l2 * $u12);
                            $x[$b + 2] -= ($l0 * $u20 + $l1 * $u21 + $l2 * $u22);
                            $b += 3;
                        }
                    }
                } else {
                    $u = [];
                    for ($r = 0; $r < $w; ++$r) {
                        for ($c = 0; $c < $wk; ++$c) {
                            $u[] = $x[$o + $r * $wk + $c] * $d[$fk + $c];
                        }
                    }
                    for ($r = 0; $r < $w; ++$r) {
                        for ($s = $r; $s < $w; ++$s) {
                            $sum = 0.0;
                            for ($c = 0; $c < $wk; ++$c) {
                                $sum += $x[$o + $r * $wk + $c] * $u[$s * $wk + $c];
                            }
                            $x[$dj + $r * $w + $s] -= $sum;
                        }
                    }
                    for ($q = $p + 1; $q < $end; ++$q) {
                        $i = $rows[$q];
                        while ($rows[$t] !== $i) {
                            ++$t;
                        }
                        $a = $at[$q];
                        $b = $at[$t];
                        for ($last = $a + $wk * $widths[$i]; $a < $last; $a += $wk) {
                            for ($s = 0; $s < $w; ++$s) {
                                $sum = 0.0;
                                for ($c = 0; $c < $wk; ++$c) {
                                    $sum += $x[$a + $c] * $u[$s * $wk + $c];
                                }
                                $x[$b] -= $sum;
                                ++$b;
                            }
                        }
                    }
                }
                if ($p + 1 < $end) {
                    $next[$k] = $p + 1;
                    $link[$k] = $head[$rows[$p + 1]];
                    $head[$rows[$p + 1]] = $k;
                }
                $k = $following;
            }
            // The diagonal block: pivots one after another, L beside them in the upper triangle.
            $fj = $first[$j];
            for ($c = 0; $c < $w; ++$c) {
                $pivot = $x[$dj + $c * ($w + 1)];
                if (isset($held[$fj + $c])) {
                    $pivot = \INF;
                } elseif (is_nan($pivot) || $pivot <= $tolerance * $own[$c]) {
                    $null[] = $fj + $c;
                    $pivot = \INF;
                }
                $inverse = 1.0 / $pivot;
                $reciprocal[$fj + $c] = $inverse;
                $d[$fj + $c] = 0.0 === $inverse ? 0.0 : $pivot;
                for ($r = $c + 1; $r < $w; ++$r) {
                    $l = $x[$dj + $c * $w + $r] * $inverse;
                    for ($s = $r; $s < $w; ++$s) {
                        $x[$dj + $r * $w + $s] = $x[$dj + $r * $w + $s] - $l * $x[$dj + $c * $w + $s];
                    }
                }
                for ($r = $c + 1; $r < $w; ++$r) {
                    $x[$dj + $c * $w + $r] *= $inverse;
                }
            }
            if ($from === $to) {
                continue;
            }
            $a = $at[$from];
            $last = $at[$to - 1] + $w * $widths[$rows[$to - 1]];
            if (3 === $w) {
                $l10 = $x[$dj + 1];
                $l20 = $x[$dj + 2];
                $l21 = $x[$dj + 5];
                $i0 = $reciprocal[$fj];
                $i1 = $reciprocal[$fj + 1];
                $i2 = $reciprocal[$fj + 2];
                for (; $a < $last; $a += 3) {
                    $r0 = $x[$a];
                    $r1 = $x[$a + 1] - $r0 * $l10;
                    $x[$a + 2] = ($x[$a + 2] - $r0 * $l20 - $r1 * $l21) * $i2;
                    $x[$a + 1] = $r1 * $i1;
                    $x[$a] = $r0 * $i0;
                }
            } elseif (1 === $w) {
                $i0 = $reciprocal[$fj];
                for (; $a < $last; ++$a) {
                    $x[$a] *= $i0;
                }
            } else {
                $l10 = $x[$dj + 1];
                for (; $a < $last; $a += 2) {
                    $x[$a + 1] = ($x[$a + 1] - $x[$a] * $l10) * $reciprocal[$fj + 1];
                    $x[$a] *= $reciprocal[$fj];
                }
            }
            $next[$j] = $from;
            $link[$j] = $head[$rows[$from]];
            $head[$rows[$from]] = $j;
        }
        $this->factor = $x;
        $this->reciprocal = $reciprocal;

        return $null;
    }

    /**
     * @param list<float> $rhs
     *
     * @return list<float> the solution; held unknowns get 0
     */
    public function solve(array $rhs): array
    {
        $x = $this->forward($rhs);
        $widths = $this->widths;
        $start = $this->start;
        $rows = $this->rows;
        $at = $this->at;
        $l = $this->factor;
        $first = $this->first;
        $reciprocal = $this->reciprocal;
        $diagonalAt = $this->diagonalAt;
        for ($j = \count($widths) - 1; $j >= 0; --$j) {
            $w = $widths[$j];
            $f = $first[$j];
            $dj = $diagonalAt[$j];
            if (3 === $w) {
                $s0 = $s1 = $s2 = 0.0;
                for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                    $i = $rows[$p];
                    $a = $at[$p];
                    for ($r = $first[$i], $last = $r + $widths[$i]; $r < $last; ++$r) {
                        $xr = $x[$r];
                        $s0 += $l[$a] * $xr;
                        $s1 += $l[$a + 1] * $xr;
                        $s2 += $l[$a + 2] * $xr;
                        $a += 3;
                    }
                }
                // A held unknown stays where it is: whatever L holds below it is not followed.
                $i2 = $reciprocal[$f + 2];
                $x2 = 0.0 === $i2 ? 0.0 : $x[$f + 2] * $i2 - $s2;
                $i1 = $reciprocal[$f + 1];
                $x1 = 0.0 === $i1 ? 0.0 : $x[$f + 1] * $i1 - $s1 - $l[$dj + 5] * $x2;
                $i0 = $reciprocal[$f];
                $x[$f] = 0.0 === $i0 ? 0.0 : $x[$f] * $i0 - $s0 - $l[$dj + 1] * $x1 - $l[$dj + 2] * $x2;
                $x[$f + 1] = $x1;
                $x[$f + 2] = $x2;
                continue;
            }
            for ($c = $w - 1; $c >= 0; --$c) {
                $inverse = $reciprocal[$f + $c];
                if (0.0 === $inverse) {
                    $x[$f + $c] = 0.0;
                    continue;
                }
                $sum = $x[$f + $c] * $inverse;
                for ($r = $c + 1; $r < $w; ++$r) {
                    $sum -= $l[$dj + $c * $w + $r] * $x[$f + $r];
                }
                for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                    $i = $rows[$p];
                    $a = $at[$p] + $c;
                    for ($r = $first[$i], $last = $r + $widths[$i]; $r < $last; ++$r) {
                        $sum -= $l[$a] * $x[$r];
                        $a += $w;
                    }
                }
                $x[$f + $c] = $sum;
            }
        }

        return $x;
    }

    /**
     * The reciprocals of D, with 0 for held unknowns: with y = {@see forward()} of b, b'A^-1 b is the sum of y^2 times these.
     *
     * @return list<float>
     */
    public function reciprocals(): array
    {
        return $this->reciprocal;
    }

    /**
     * L^-1 b. Blocks that nothing reaches are passed over, so that a sparse right-hand side is cheap.
     *
     * @param list<float> $rhs
     *
     * @return list<float>
     */
    public function forward(array $rhs): array
    {
        $widths = $this->widths;
        $start = $this->start;
        $rows = $this->rows;
        $at = $this->at;
        $l = $this->factor;
        $first = $this->first;
        $diagonalAt = $this->diagonalAt;
        $x = $rhs;
        for ($j = 0, $n = \count($widths); $j < $n; ++$j) {
            $w = $widths[$j];
            $f = $first[$j];
            if (3 === $w) {
                $x0 = $x[$f];
                $dj = $diagonalAt[$j];
                $x1 = $x[$f + 1] - $l[$dj + 1] * $x0;
                $x2 = $x[$f + 2] - $l[$dj + 2] * $x0 - $l[$dj + 5] * $x1;
                if (0.0 === $x0 && 0.0 === $x1 && 0.0 === $x2) {
                    continue;
                }
                $x[$f + 1] = $x1;
                $x[$f + 2] = $x2;
                for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                    $i = $rows[$p];
                    $a = $at[$p];
                    for ($r = $first[$i], $last = $r + $widths[$i]; $r < $last; ++$r) {
                        $x[$r] -= ($l[$a] * $x0 + $l[$a + 1] * $x1 + $l[$a + 2] * $x2);
                        $a += 3;
                    }
                }
                continue;
            }
            $x0 = $x[$f];
            $x1 = 0.0;
            if (2 === $w) {
                $x1 = $x[$f + 1] = $x[$f + 1] - $l[$diagonalAt[$j] + 1] * $x0;
            }
            if (0.0 === $x0 && 0.0 === $x1) {
                continue;
            }
            for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                $i = $rows[$p];
                $a = $at[$p];
                for ($r = $first[$i], $last = $r + $widths[$i]; $r < $last; ++$r) {
                    $x[$r] = $x[$r] - $l[$a] * $x0 - (2 === $w ? $l[$a + 1] * $x1 : 0.0);
                    $a += $w;
                }
            }
        }

        return $x;
    }

    /**
     * The direction in which the matrix is null because unknown $k has a null pivot: 1 at $k, 0 at later unknowns.
     *
     * @return list<float>
     */
    public function nullDirection(int $k): array
    {
        $x = array_fill(0, $this->size, 0.0);
        $x[$k] = 1.0;
        for ($j = \count($this->widths) - 1; $j >= 0; --$j) {
            $f = $this->first[$j];
            if ($f > $k) {
                continue;
            }
            $w = $this->widths[$j];
            for ($c = $w - 1; $c >= 0; --$c) {
                if ($f + $c >= $k || 0.0 === $this->reciprocal[$f + $c]) {
                    continue;
                }
                $sum = 0.0;
                for ($r = $c + 1; $r < $w; ++$r) {
                    $sum -= $this->factor[$this->diagonalAt[$j] + $c * $w + $r] * $x[$f + $r];
                }
                for ($p = $this->start[$j]; $p < $this->start[$j + 1]; ++$p) {
                    $i = $this->rows[$p];
                    for ($r = 0; $r < $this->widths[$i]; ++$r) {
                        $sum -= $this->factor[$this->at[$p] + $r * $w + $c] * $x[$this->first[$i] + $r];
                    }
                }
                $x[$f + $c] = $sum;
            }
        }

        return $x;
    }

    /**
     * The inverse on the pattern of the factor, in the layout; rows and columns of held unknowns are 0.
     *
     * With M = L_RJ L_JJ^-1 for the rows R below block column J: Z_RJ = -Z_RR M and Z_JJ = L_JJ^-T D^-1 L_JJ^-1 - Z_JR M.
     *
     * @return list<float>
     */
    public function selectedInverse(): array
    {
        $widths = $this->widths;
        $start = $this->start;
        $rows = $this->rows;
        $at = $this->at;
        $l = $this->factor;
        $first = $this->first;
        $z = array_fill(0, $this->valueCount, 0.0);
        for ($j = \count($widths) - 1; $j >= 0; --$j) {
            $w = $widths[$j];
            $dj = $this->diagonalAt[$j];
            $from = $start[$j];
            $to = $start[$j + 1];
            $base = $from < $to ? $at[$from] : 0;
            $length = $from < $to ? $at[$to - 1] + $w * $widths[$rows[$to - 1]] - $base : 0;
            $m = $this->timesInverseOfDiagonal($base, $length, $dj, $w);
            $s = $length > 0 ? array_fill(0, $length, 0.0) : [];
            for ($p = $from; $p < $to; ++$p) {
                $k = $rows[$p];
                $wk = $widths[$k];
                $mp = $at[$p] - $base;
                $dk = $this->diagonalAt[$k];
                $t = $start[$k];
                if (3 === $wk && 3 === $w) {
                    $m00 = $m[$mp];
                    $m01 = $m[$mp + 1];
                    $m02 = $m[$mp + 2];
                    $m10 = $m[$mp + 3];
                    $m11 = $m[$mp + 4];
                    $m12 = $m[$mp + 5];
                    $m20 = $m[$mp + 6];
                    $m21 = $m[$mp + 7];
                    $m22 = $m[$mp + 8];
                    $z0 = $z[$dk];
                    $z1 = $z[$dk + 1];
                    $z2 = $z[$dk + 2];
                    $z4 = $z[$dk + 4];
                    $z5 = $z[$dk + 5];
                    $z8 = $z[$dk + 8];
                    $s00 = $s[$mp] + $z0 * $m00 + $z1 * $m10 + $z2 * $m20;
                    $s01 = $s[$mp + 1] + $z0 * $m01 + $z1 * $m11 + $z2 * $m21;
                    $s02 = $s[$mp + 2] + $z0 * $m02 + $z1 * $m12 + $z2 * $m22;
                    $s10 = $s[$mp + 3] + $z1 * $m00 + $z4 * $m10 + $z5 * $m20;
                    $s11 = $s[$mp + 4] + $z1 * $m01 + $z4 * $m11 + $z5 * $m21;
                    $s12 = $s[$mp + 5] + $z1 * $m02 + $z4 * $m12 + $z5 * $m22;
                    $s20 = $s[$mp + 6] + $z2 * $m00 + $z5 * $m10 + $z8 * $m20;
                    $s21 = $s[$mp + 7] + $z2 * $m01 + $z5 * $m11 + $z8 * $m21;
                    $s22 = $s[$mp + 8] + $z2 * $m02 + $z5 * $m12 + $z8 * $m22;
                    for ($q = $p + 1; $q < $to; ++$q) {
                        $i = $rows[$q];
                        while ($rows[$t] !== $i) {
                            ++$t;
                        }
                        $b = $at[$t];
                        $a = $at[$q] - $base;
                        for ($last = $a + 3 * $widths[$i]; $a < $last; $a += 3) {
                            $z0 = $z[$b];
                            $z1 = $z[$b + 1];
                            $z2 = $z[$b + 2];
                            $n0 = $m[$a];
                            $n1 = $m[$a + 1];
                            $n2 = $m[$a + 2];
                            $s[$a] = $s[$a] + $z0 * $m00 + $z1 * $m10 + $z2 * $m20;
                            $s[$a + 1] = $s[$a + 1] + $z0 * $m01 + $z1 * $m11 + $z2 * $m21;
                            $s[$a + 2] = $s[$a + 2] + $z0 * $m02 + $z1 * $m12 + $z2 * $m22;
                            $s00 += $z0 * $n0;
                            $s01 += $z0 * $n1;
                            $s02 += $z0 * $n2;
                            $s10 += $z1 * $n0;
                            $s11 += $z1 * $n1;
                            $s12 += $z1 * $n2;
                            $s20 += $z2 * $n0;
                            $s21 += $z2 * $n1;
                            $s22 += $z2 * $n2;
                            $b += 3;
                        }
                    }
                    $s[$mp] = $s00;
                    $s[$mp + 1] = $s01;
                    $s[$mp + 2] = $s02;
                    $s[$mp + 3] = $s10;
                    $s[$mp + 4] = $s11;
                    $s[$mp + 5] = $s12;
                    $s[$mp + 6] = $s20;
                    $s[$mp + 7] = $s21;
                    $s[$mp + 8] = $s22;
                    continue;
                }
                if (3 === $wk && 1 === $w) {
                    $m0 = $m[$mp];
                    $m1 = $m[$mp + 1];
                    $m2 = $m[$mp + 2];
                    $z1 = $z[$dk + 1];
                    $z2 = $z[$dk + 2];
                    $z5 = $z[$dk + 5];
                    $s0 = $s[$mp] + $z[$dk] * $m0 + $z1 * $m1 + $z2 * $m2;
                    $s1 = $s[$mp + 1] + $z1 * $m0 + $z[$dk + 4] * $m1 + $z5 * $m2;
                    $s2 = $s[$mp + 2] + $z2 * $m0 + $z5 * $m1 + $z[$dk + 8] * $m2;
                    for ($q = $p + 1; $q < $to; ++$q) {
                        $i = $rows[$q];
                        while ($rows[$t] !== $i) {
                            ++$t;
                        }
                        $b = $at[$t];
                        $a = $at[$q] - $base;
                        for ($last = $a + $widths[$i]; $a < $last; ++$a) {
                            $z0 = $z[$b];
                            $z1 = $z[$b + 1];
                            $z2 = $z[$b + 2];
                            $n0 = $m[$a];
                            $s[$a] = $s[$a] + $z0 * $m0 + $z1 * $m1 + $z2 * $m2;
                            $s0 += $z0 * $n0;
                            $s1 += $z1 * $n0;
                            $s2 += $z2 * $n0;
                            $b += 3;
                        }
                    }
                    $s[$mp] = $s0;
                    $s[$mp + 1] = $s1;
                    $s[$mp + 2] = $s2;
                    continue;
                }
                for ($r = 0; $r < $wk; ++$r) {
                    for ($e = 0; $e < $wk; ++$e) {
                        $zv = $r <= $e ? $z[$dk + $r * $wk + $e] : $z[$dk + $e * $wk + $r];
                        for ($c = 0; $c < $w; ++$c) {
                            $s[$mp + $r * $w + $c] = $s[$mp + $r * $w + $c] + $zv * $m[$mp + $e * $w + $c];
                        }
                    }
                }
                for ($q = $p + 1; $q < $to; ++$q) {
                    $i = $rows[$q];
                    while ($rows[$t] !== $i) {
                        ++$t;
                    }
                    $b = $at[$t];
                    $a = $at[$q] - $base;
                    for ($last = $a + $w * $widths[$i]; $a < $last; $a += $w) {
                        for ($r = 0; $r < $wk; ++$r) {
                            $zv = $z[$b++];
                            for ($c = 0; $c < $w; ++$c) {
                                $s[$a + $c] = $s[$a + $c] + $zv * $m[$mp + $r * $w + $c];
                                $s[$mp + $r * $w + $c] = $s[$mp + $r * $w + $c] + $zv * $m[$a + $c];
                            }
                        }
                    }
                }
            }
            for ($a = 0; $a < $length; ++$a) {
                $z[$base + $a] = -$s[$a];
            }
            $own = $this->inverseOfDiagonal($dj, $w, $first[$j]);
            for ($r = 0; $r < $w; ++$r) {
                for ($c = $r; $c < $w; ++$c) {
                    $sum = $own[$r * $w + $c];
                    for ($a = 0; $a < $length; $a += $w) {
                        $sum += $s[$a + $r] * $m[$a + $c];
                    }
                    $z[$dj + $r * $w + $c] = $sum;
                }
            }
        }

        return $z;
    }

    /** @return list<float> rows of L below a diagonal block times the inverse of that block of L */
    private function timesInverseOfDiagonal(int $base, int $length, int $dj, int $w): array
    {
        $m = \array_slice($this->factor, $base, $length);
        if (1 === $w) {
            return $m;
        }
        $l10 = $this->factor[$dj + 1];
        if (2 === $w) {
            for ($a = 0; $a < $length; $a += 2) {
                $m[$a] = $m[$a] - $m[$a + 1] * $l10;
            }

            return $m;
        }
        $l20 = $this->factor[$dj + 2];
        $l21 = $this->factor[$dj + 5];
        for ($a = 0; $a < $length; $a += 3) {
            $m2 = $m[$a + 2];
            $m1 = $m[$a + 1] - $m2 * $l21;
            $m[$a + 1] = $m1;
            $m[$a] = $m[$a] - $m1 * $l10 - $m2 * $l20;
        }

        return $m;
    }

    /** @return list<float> L_JJ^-T D^-1 L_JJ^-1, w by w; the upper triangle counts */
    private function inverseOfDiagonal(int $dj, int $w, int $f): array
    {
        $i0 = $this->reciprocal[$f];
        if (1 === $w) {
            return [$i0];
        }
        $i1 = $this->reciprocal[$f + 1];
        $l10 = $this->factor[$dj + 1];
        if (2 === $w) {
            return [$i0 + $l10 * $l10 * $i1, -$l10 * $i1, 0.0, $i1];
        }
        $i2 = $this->reciprocal[$f + 2];
        $l21 = $this->factor[$dj + 5];
        $n20 = $l10 * $l21 - $this->factor[$dj + 2];

        return [
            $i0 + $l10 * $l10 * $i1 + $n20 * $n20 * $i2, -$l10 * $i1 - $n20 * $l21 * $i2, $n20 * $i2,
            0.0, $i1 + $l21 * $l21 * $i2, -$l21 * $i2,
            0.0, 0.0, $i2,
        ];
    }
}
