<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/**
 * Sparse L D L' factorization of a symmetric positive semi-definite matrix whose unknowns are
 * already in elimination order.
 *
 * Symbolic analysis once (elimination tree and row sub-trees), numeric factorization as often as
 * the values change. Up-looking, after Davis (2006), "Direct Methods for Sparse Linear Systems",
 * chapter 4. The selected inverse follows Takahashi, Fagan and Chin (1973): every entry of the inverse
 * on the pattern of L, without forming the rest.
 *
 * A pivot that falls below `$tolerance` times its own diagonal is reported as null and replaced
 * by an infinite one, which holds that unknown; the caller decides whether that is a defect.
 */
final class SparseCholesky
{
    /** Pivots below this fraction of the diagonal count as null: about a hundred times the rounding of a long strip-like net. */
    public const PIVOT_TOLERANCE = 1e-11;

    /** @var list<int> column starts of L, n + 1 */
    public readonly array $columnStart;

    /** @var list<int> rows of L below the diagonal, ascending in each column */
    public readonly array $rowIndex;

    /** @var list<float> L below the diagonal, unit diagonal implied */
    private array $lower = [];

    /** @var list<float> D, a held unknown has INF */
    private array $diagonal = [];

    /** @var list<int> */
    private array $parent;

    /**
     * Pattern of the upper triangle by columns: for column k the rows i < k (any order, no repeats); the diagonal is implied.
     *
     * @param list<int> $upperStart n + 1 offsets
     * @param list<int> $upperRow
     */
    public function __construct(
        public readonly int $size,
        private readonly array $upperStart,
        private readonly array $upperRow,
    ) {
        $n = $size;
        $parent = array_fill(0, $n, -1);
        $ancestor = array_fill(0, $n, -1);
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
        $this->parent = $parent;

        $count = array_fill(0, $n, 0);
        $mark = array_fill(0, $n, -1);
        for ($k = 0; $k < $n; ++$k) {
            $mark[$k] = $k;
            for ($p = $upperStart[$k], $end = $upperStart[$k + 1]; $p < $end; ++$p) {
                for ($i = $upperRow[$p]; $mark[$i] !== $k; $i = $parent[$i]) {
                    ++$count[$i];
                    $mark[$i] = $k;
                }
            }
        }
        $start = [0];
        $total = 0;
        for ($k = 0; $k < $n; ++$k) {
            $start[] = $total += $count[$k];
        }
        $rows = $total > 0 ? array_fill(0, $total, 0) : [];
        $next = $start;
        $mark = array_fill(0, $n, -1);
        for ($k = 0; $k < $n; ++$k) {
            $mark[$k] = $k;
            for ($p = $upperStart[$k], $end = $upperStart[$k + 1]; $p < $end; ++$p) {
                for ($i = $upperRow[$p]; $mark[$i] !== $k; $i = $parent[$i]) {
                    $rows[$next[$i]++] = $k;
                    $mark[$i] = $k;
                }
            }
        }
        $this->columnStart = $start;
        $this->rowIndex = $rows;
    }

    public function nonZeros(): int
    {
        return \count($this->rowIndex) + $this->size;
    }

    /**
     * @param list<float> $upper    values on the upper pattern
     * @param list<float>     $diagonal values on the diagonal
     * @param array<int, true> $held     unknowns to hold from the start
     *
     * @return list<int> further unknowns with a null pivot; they are held too
     */
    public function factor(array $upper, array $diagonal, array $held = [], float $tolerance = self::PIVOT_TOLERANCE): array
    {
        $n = $this->size;
        $start = $this->columnStart;
        $rows = $this->rowIndex;
        $upperStart = $this->upperStart;
        $upperRow = $this->upperRow;
        $parent = $this->parent;
        $lower = [] === $rows ? [] : array_fill(0, \count($rows), 0.0);
        $d = array_fill(0, max($n, 1), 0.0);
        $x = array_fill(0, max($n, 1), 0.0);
        $filled = $start;
        $mark = array_fill(0, max($n, 1), -1);
        $stack = array_fill(0, max($n, 1), 0);
        $path = array_fill(0, max($n, 1), 0);
        $null = [];
        for ($k = 0; $k < $n; ++$k) {
            // Row sub-tree of k in topological order: stack[top..n).
            $top = $n;
            $mark[$k] = $k;
            for ($p = $upperStart[$k], $end = $upperStart[$k + 1]; $p < $end; ++$p) {
                $i = $upperRow[$p];
                $x[$i] = $upper[$p];
                $length = 0;
                while ($mark[$i] !== $k) {
                    $path[$length++] = $i;
                    $mark[$i] = $k;
                    $i = $parent[$i];
                }
                while ($length > 0) {
                    $stack[--$top] = $path[--$length];
                }
            }
            $pivot = $diagonal[$k];
            for (; $top < $n; ++$top) {
                $i = $stack[$top];
                $xi = $x[$i];
                $x[$i] = 0.0;
                $end = $filled[$i];
                for ($p = $start[$i]; $p < $end; ++$p) {
                    $r = $rows[$p];
                    $x[$r] = $x[$r] - $lower[$p] * $xi;
                }
                $lki = $xi / $d[$i];
                $pivot -= $lki * $xi;
                $lower[$end] = $lki;
                $filled[$i] = $end + 1;
            }
            if (isset($held[$k])) {
                $pivot = \INF;
            } elseif (is_nan($pivot) || $pivot <= $tolerance * $diagonal[$k]) {
                $null[] = $k;
                $pivot = \INF;
            }
            $d[$k] = $pivot;
        }
        $this->lower = $lower;
        $this->diagonal = $d;

        return $null;
    }

    /**
     * @param list<float> $rhs
     *
     * @return list<float> the solution; held unknowns get 0
     */
    public function solve(array $rhs): array
    {
        $n = $this->size;
        $start = $this->columnStart;
        $rows = $this->rowIndex;
        $lower = $this->lower;
        $x = $rhs;
        for ($j = 0; $j < $n; ++$j) {
            $xj = $x[$j];
            if (0.0 !== $xj) {
                for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                    $r = $rows[$p];
                    $x[$r] = $x[$r] - $lower[$p] * $xj;
                }
            }
        }
        $d = $this->diagonal;
        for ($j = $n - 1; $j >= 0; --$j) {
            $s = $x[$j] / $d[$j];
            for ($p = $start[$j], $end = $start[$j + 1]; $p < $end; ++$p) {
                $s -= $lower[$p] * $x[$rows[$p]];
            }
            // A held unknown stays where it is: whatever L holds below it is not followed.
            $x[$j] = is_infinite($d[$j]) ? 0.0 : $s;
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
        for ($j = $k - 1; $j >= 0; --$j) {
            if (is_infinite($this->diagonal[$j])) {
                continue;
            }
            $s = 0.0;
            for ($p = $this->columnStart[$j], $end = $this->columnStart[$j + 1]; $p < $end; ++$p) {
                $s -= $this->lower[$p] * $x[$this->rowIndex[$p]];
            }
            $x[$j] = $s;
        }

        return $x;
    }

    public function selectedInverse(): SelectedInverse
    {
        $n = $this->size;
        $start = $this->columnStart;
        $rows = $this->rowIndex;
        $lower = $this->lower;
        $d = $this->diagonal;
        $z = [] === $rows ? [] : array_fill(0, \count($rows), 0.0);
        $zd = array_fill(0, max($n, 1), 0.0);
        $mark = array_fill(0, max($n, 1), -1);
        $work = array_fill(0, max($n, 1), 0.0);
        $l = array_fill(0, max($n, 1), 0.0);
        for ($j = $n - 1; $j >= 0; --$j) {
            $from = $start[$j];
            $to = $start[$j + 1];
            if (is_infinite($d[$j])) {
                continue; // a held unknown: no variance, no covariance
            }
            for ($p = $from; $p < $to; ++$p) {
                $i = $rows[$p];
                $mark[$i] = $j;
                $work[$i] = 0.0;
                $l[$i] = $lower[$p];
            }
            for ($p = $from; $p < $to; ++$p) {
                $k = $rows[$p];
                $lk = $l[$k];
                $sum = $zd[$k] * $lk;
                for ($q = $start[$k], $end = $start[$k + 1]; $q < $end; ++$q) {
                    $i = $rows[$q];
                    if ($mark[$i] === $j) {
                        $zq = $z[$q];
                        $work[$i] = $work[$i] + $zq * $lk;
                        $sum += $zq * $l[$i];
                    }
                }
                $work[$k] += $sum;
            }
            $own = 1.0 / $d[$j];
            for ($p = $from; $p < $to; ++$p) {
                $i = $rows[$p];
                $zij = -$work[$i];
                $z[$p] = $zij;
                $own -= $l[$i] * $zij;
            }
            $zd[$j] = $own;
        }

        return new SelectedInverse($start, $rows, $z, $zd);
    }
}
