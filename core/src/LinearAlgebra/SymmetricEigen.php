<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/** Eigenvalues and vectors of small symmetric matrices by Jacobi rotations (Golub and Van Loan, Matrix Computations, section 8.5). */
final class SymmetricEigen
{
    /**
     * @param array<int, array<int, float>> $m symmetric, three by three
     *
     * @return array{array<int, float>, array<int, array<int, float>>} eigenvalues, eigenvectors in columns
     */
    public static function ofThree(array $m): array
    {
        $v = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]];
        for ($sweep = 0; $sweep < 60; ++$sweep) {
            $off = abs($m[0][1]) + abs($m[0][2]) + abs($m[1][2]);
            if ($off <= 1e-300 || $off < 1e-22 * (abs($m[0][0]) + abs($m[1][1]) + abs($m[2][2]))) {
                break;
            }
            foreach ([[0, 1], [0, 2], [1, 2]] as [$p, $q]) {
                if (0.0 === $m[$p][$q]) {
                    continue;
                }
                $theta = ($m[$q][$q] - $m[$p][$p]) / (2.0 * $m[$p][$q]);
                $t = ($theta >= 0.0 ? 1.0 : -1.0) / (abs($theta) + sqrt($theta * $theta + 1.0));
                $c = 1.0 / sqrt($t * $t + 1.0);
                $s = $t * $c;
                for ($k = 0; $k < 3; ++$k) {
                    [$m[$k][$p], $m[$k][$q]] = [$c * $m[$k][$p] - $s * $m[$k][$q], $s * $m[$k][$p] + $c * $m[$k][$q]];
                }
                for ($k = 0; $k < 3; ++$k) {
                    [$m[$p][$k], $m[$q][$k]] = [$c * $m[$p][$k] - $s * $m[$q][$k], $s * $m[$p][$k] + $c * $m[$q][$k]];
                    [$v[$k][$p], $v[$k][$q]] = [$c * $v[$k][$p] - $s * $v[$k][$q], $s * $v[$k][$p] + $c * $v[$k][$q]];
                }
            }
        }

        return [[$m[0][0], $m[1][1], $m[2][2]], $v];
    }
}
