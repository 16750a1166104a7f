<?php

declare(strict_types=1);

namespace Mensura\Image;

/** Rotations from camera axes to e, n, h: nine values, row by row. R = Rx(omega) Ry(phi) Rz(kappa), right-handed, degrees. */
final class Rotation
{
    /** @return list<float> */
    public static function of(float $omega, float $phi, float $kappa): array
    {
        [$so, $co] = [sin(deg2rad($omega)), cos(deg2rad($omega))];
        [$sp, $cp] = [sin(deg2rad($phi)), cos(deg2rad($phi))];
        [$sk, $ck] = [sin(deg2rad($kappa)), cos(deg2rad($kappa))];

        return [
            $cp * $ck, -$cp * $sk, $sp, $co * $sk + $so * $sp * $ck, $co * $ck - $so * $sp * $sk, -$so * $cp,
            $so * $sk - $co * $sp * $ck, $so * $ck + $co * $sp * $sk, $co * $cp,
        ];
    }

    /**
     * @param list<float> $r
     *
     * @return array{float, float, float} omega, phi, kappa
     */
    public static function angles(array $r): array
    {
        return [rad2deg(atan2(-$r[5], $r[8])), rad2deg(asin(max(-1.0, min(1.0, $r[2])))), rad2deg(atan2(-$r[1], $r[0]))];
    }

    /**
     * One after the other: the second first.
     *
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return list<float>
     */
    public static function product(array $a, array $b): array
    {
        $m = [];
        foreach ([0, 3, 6] as $i) {
            foreach ([0, 1, 2] as $j) {
                $m[] = $a[$i] * $b[$j] + $a[$i + 1] * $b[3 + $j] + $a[$i + 2] * $b[6 + $j];
            }
        }

        return $m;
    }

    /**
     * A direction of the camera, on the ground.
     *
     * @param list<float>                $r
     * @param array{float, float, float} $d
     *
     * @return array{float, float, float}
     */
    public static function ground(array $r, array $d): array
    {
        [$x, $y, $z] = $d;

        return [$r[0] * $x + $r[1] * $y + $r[2] * $z, $r[3] * $x + $r[4] * $y + $r[5] * $z, $r[6] * $x + $r[7] * $y + $r[8] * $z];
    }

    /**
     * Turned by a small rotation about its own axes: R exp([w]).
     *
     * @param list<float> $r
     *
     * @return list<float>
     */
    public static function turned(array $r, float $a, float $b, float $c): array
    {
        $w = sqrt($a * $a + $b * $b + $c * $c);
        $s = $w < 1e-8 ? 1.0 - $w * $w / 6.0 : sin($w) / $w;
        $t = $w < 1e-8 ? 0.5 - $w * $w / 24.0 : (1.0 - cos($w)) / ($w * $w);
        $e = [
            1.0 - $t * ($b * $b + $c * $c), $t * $a * $b - $s * $c, $t * $a * $c + $s * $b,
            $t * $a * $b + $s * $c, 1.0 - $t * ($a * $a + $c * $c), $t * $b * $c - $s * $a,
            $t * $a * $c - $s * $b, $t * $b * $c + $s * $a, 1.0 - $t * ($a * $a + $b * $b),
        ];
        $m = [];
        for ($i = 0; $i < 9; $i += 3) {
            for ($j = 0; $j < 3; ++$j) {
                $m[] = $r[$i] * $e[$j] + $r[$i + 1] * $e[3 + $j] + $r[$i + 2] * $e[6 + $j];
            }
        }

        return self::orthonormal($m);
    }

    /**
     * Standard deviations of the angles, degrees, from the covariance of a rotation about the own axes, radians squared.
     *
     * @param list<float> $r
     * @param list<float> $q nine values
     *
     * @return array{float, float, float}
     */
    public static function deviations(array $r, array $q): array
    {
        [, $phi, $kappa] = self::angles($r);
        $cp = cos(deg2rad($phi));
        $cp = abs($cp) < 1e-12 ? 1e-12 : $cp;
        [$sk, $ck] = [sin(deg2rad($kappa)), cos(deg2rad($kappa))];
        $tan = sin(deg2rad($phi)) / $cp;
        $sd = [];
        foreach ([[$ck / $cp, -$sk / $cp, 0.0], [$sk, $ck, 0.0], [-$tan * $ck, $tan * $sk, 1.0]] as [$a, $b, $c]) {
            $v = $a * ($a * $q[0] + $b * $q[1] + $c * $q[2]) + $b * ($a * $q[3] + $b * $q[4] + $c * $q[5])
                + $c * ($a * $q[6] + $b * $q[7] + $c * $q[8]);
            $sd[] = rad2deg(sqrt(max(0.0, $v)));
        }

        return [$sd[0], $sd[1], $sd[2]];
    }

    /**
     * The rotation that brings directions of the camera nearest to those of the ground (Horn 1987, JOSA A 4(4), quaternions).
     *
     * @param list<array{float, float, float}> $camera unit vectors
     * @param list<array{float, float, float}> $ground
     *
     * @return list<float>
     */
    public static function between(array $camera, array $ground): array
    {
        $s = array_fill(0, 9, 0.0);
        foreach ($camera as $i => $a) {
            foreach ([0, 1, 2] as $j) {
                foreach ([0, 1, 2] as $k) {
                    $s[3 * $j + $k] += $a[$j] * $ground[$i][$k];
                }
            }
        }
        [$xx, $xy, $xz, $yx, $yy, $yz, $zx, $zy, $zz] = $s;
        $n = [
            [$xx + $yy + $zz, $yz - $zy, $zx - $xz, $xy - $yx], [$yz - $zy, $xx - $yy - $zz, $xy + $yx, $zx + $xz],
            [$zx - $xz, $xy + $yx, -$xx + $yy - $zz, $yz + $zy], [$xy - $yx, $zx + $xz, $yz + $zy, -$xx - $yy + $zz],
        ];
        // The eigenvector of the greatest eigenvalue: powers of the matrix, made positive first.
        $shift = 2.0 * \count($camera);
        $best = [1.0, 0.0, 0.0, 0.0];
        $greatest = -\INF;
        foreach ([[1.0, 0.1, 0.2, 0.3], [0.1, 1.0, -0.2, 0.3], [-0.1, 0.2, 1.0, 0.3]] as [$a, $b, $c, $d]) {
            $length = 0.0;
            for ($k = 0; $k < 400; ++$k) {
                $next = [];
                foreach ($n as $row) {
                    $next[] = $row[0] * $a + $row[1] * $b + $row[2] * $c + $row[3] * $d;
                }
                [$a, $b, $c, $d] = [$shift * $a + $next[0], $shift * $b + $next[1], $shift * $c + $next[2], $shift * $d + $next[3]];
                $length = sqrt($a * $a + $b * $b + $c * $c + $d * $d);
                [$a, $b, $c, $d] = [$a / $length, $b / $length, $c / $length, $d / $length];
            }
            if ($length > $greatest) {
                [$best, $greatest] = [[$a, $b, $c, $d], $length];
            }
        }
        [$w, $x, $y, $z] = $best;

        return [
            1.0 - 2.0 * ($y * $y + $z * $z), 2.0 * ($x * $y - $w * $z), 2.0 * ($x * $z + $w * $y),
            2.0 * ($x * $y + $w * $z), 1.0 - 2.0 * ($x * $x + $z * $z), 2.0 * ($y * $z - $w * $x),
            2.0 * ($x * $z - $w * $y), 2.0 * ($y * $z + $w * $x), 1.0 - 2.0 * ($x * $x + $y * $y),
        ];
    }

    /**
     * The turn about e, n and h that brings one rotation to another not far from it: its direction times its angle, radians.
     *
     * @param list<float> $from
     * @param list<float> $to
     *
     * @return array{float, float, float}
     */
    public static function apart(array $from, array $to): array
    {
        // To times the transpose of from.
        $m = [];
        foreach ([0, 3, 6] as $i) {
            foreach ([0, 3, 6] as $j) {
                $m[] = $to[$i] * $from[$j] + $to[$i + 1] * $from[$j + 1] + $to[$i + 2] * $from[$j + 2];
            }
        }
        $v = [0.5 * ($m[7] - $m[5]), 0.5 * ($m[2] - $m[6]), 0.5 * ($m[3] - $m[1])];
        $sine = sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2);
        $by = $sine < 1e-9 ? 1.0 : atan2($sine, 0.5 * ($m[0] + $m[4] + $m[8] - 1.0)) / $sine;

        return [$by * $v[0], $by * $v[1], $by * $v[2]];
    }

    /**
     * @param list<float> $m
     *
     * @return list<float>
     */
    private static function orthonormal(array $m): array
    {
        [$a, $b, $c, $d, $e, $f] = $m;
        $l = sqrt($a * $a + $b * $b + $c * $c);
        [$a, $b, $c] = [$a / $l, $b / $l, $c / $l];
        $p = $a * $d + $b * $e + $c * $f;
        [$d, $e, $f] = [$d - $p * $a, $e - $p * $b, $f - $p * $c];
        $l = sqrt($d * $d + $e * $e + $f * $f);
        [$d, $e, $f] = [$d / $l, $e / $l, $f / $l];

        return [$a, $b, $c, $d, $e, $f, $b * $f - $c * $e, $c * $d - $a * $f, $a * $e - $b * $d];
    }
}
