<?php

declare(strict_types=1);

namespace Mensura\Image;

/** Symmetric matrices of three unknowns, by their upper triangle row by row: xx, xy, xz, yy, yz, zz. */
final class SymmetricThree
{
    /**
     * @param array{float, float, float, float, float, float} $n
     * @param float                                           $least determinant, below which there is no inverse
     *
     * @return ?array{float, float, float, float, float, float}
     */
    public static function inverse(array $n, float $least = 0.0): ?array
    {
        [$a, $b, $c, $d, $e, $f] = $n;
        $q = [$d * $f - $e * $e, $c * $e - $b * $f, $b * $e - $c * $d, $a * $f - $c * $c, $b * $c - $a * $e, $a * $d - $b * $b];
        $det = $a * $q[0] + $b * $q[1] + $c * $q[2];

        return $det <= $least ? null : [$q[0] / $det, $q[1] / $det, $q[2] / $det, $q[3] / $det, $q[4] / $det, $q[5] / $det];
    }

    /**
     * @param array{float, float, float, float, float, float} $q
     * @param array{float, float, float}                      $g
     *
     * @return array{float, float, float}
     */
    public static function times(array $q, array $g): array
    {
        return [
            $q[0] * $g[0] + $q[1] * $g[1] + $q[2] * $g[2], $q[1] * $g[0] + $q[3] * $g[1] + $q[4] * $g[2],
            $q[2] * $g[0] + $q[4] * $g[1] + $q[5] * $g[2],
        ];
    }
}
