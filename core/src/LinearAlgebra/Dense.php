<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/** Small dense matrices as lists of rows; for the handful-by-handful blocks around the sparse solver. */
final class Dense
{
    /**
     * Inverse by Gauss-Jordan with partial pivoting.
     *
     * @param list<list<float>> $matrix square
     *
     * @return list<list<float>>|null null when singular to working precision
     */
    public static function inverse(array $matrix): ?array
    {
        $n = \count($matrix);
        $scale = 0.0;
        $a = [];
        foreach ($matrix as $i => $row) {
            foreach ($row as $value) {
                $scale = max($scale, abs($value));
            }
            for ($j = 0; $j < $n; ++$j) {
                $row[] = $i === $j ? 1.0 : 0.0;
            }
            $a[] = $row;
        }
        for ($c = 0; $c < $n; ++$c) {
            $best = $c;
            for ($r = $c + 1; $r < $n; ++$r) {
                if (abs($a[$r][$c]) > abs($a[$best][$c])) {
                    $best = $r;
                }
            }
            if (!is_finite($a[$best][$c]) || abs($a[$best][$c]) <= 1e-14 * $scale) {
                return null;
            }
            [$a[$c], $a[$best]] = [$a[$best], $a[$c]];
            $pivot = $a[$c][$c];
            for ($j = 0; $j < 2 * $n; ++$j) {
                $a[$c][$j] /= $pivot;
            }
            for ($r = 0; $r < $n; ++$r) {
                $factor = $a[$r][$c];
                if ($r === $c || 0.0 === $factor) {
                    continue;
                }
                for ($j = $c; $j < 2 * $n; ++$j) {
                    $a[$r][$j] -= $factor * $a[$c][$j];
                }
            }
        }

        return array_map(static fn (array $row): array => \array_slice($row, $n), $a);
    }

    /**
     * True when symmetric (to 1e-9 of its scale) and positive definite.
     *
     * @param list<list<float>> $matrix
     */
    public static function isCovariance(array $matrix): bool
    {
        $n = \count($matrix);
        for ($i = 0; $i < $n; ++$i) {
            // Asked outright: the JIT compiler turns a negated comparison round, which a NaN survives.
            if (!is_finite($matrix[$i][$i]) || $matrix[$i][$i] <= 0.0) {
                return false;
            }
        }
        $l = [];
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j <= $i; ++$j) {
                if (abs($matrix[$i][$j] - $matrix[$j][$i]) > 1e-9 * sqrt($matrix[$i][$i] * $matrix[$j][$j])) {
                    return false;
                }
                $s = $matrix[$i][$j];
                for ($k = 0; $k < $j; ++$k) {
                    $s -= $l[$i][$k] * $l[$j][$k];
                }
                if ($i === $j) {
                    if (!is_finite($s) || $s <= 1e-12 * $matrix[$i][$i]) {
                        return false;
                    }
                    $l[$i][$i] = sqrt($s);
                } else {
                    $l[$i][$j] = $s / $l[$j][$j];
                }
            }
        }

        return true;
    }
}
