<?php

declare(strict_types=1);

namespace Mensura\Matching;

/**
 * Which of the matches of two images agree with one geometry: directions to the same point and the base lie in a plane. The matrix of
 * that is found from eight matches drawn by chance, again and again (Longuet-Higgins 1981; Hartley 1997, "In defense of the eight-point
 * algorithm"; Fischler and Bolles 1981), and once more from all that agree; distances after Sampson 1982. On flat ground it is not
 * determined in all its parts; matches agree with it all the same.
 */
final class PairCheck
{
    private const DRAWN = 8;
    private const MOST = 400;
    /** Share of certainty that one draw was free of wrong matches. */
    private const SURE = 0.999;

    /**
     * @param list<float> $x1 directions over the axis, of matches in turn
     * @param list<float> $y1
     * @param list<float> $x2
     * @param list<float> $y2
     * @param float       $within greatest distance from the line, in these units
     * @param int         $seed   the same draws for the same pair
     *
     * @return list<int> numbers of those that agree; empty where too few do
     */
    public static function agreeing(array $x1, array $y1, array $x2, array $y2, float $within, int $seed): array
    {
        $n = \count($x1);
        if ($n < 2 * self::DRAWN) {
            return [];
        }
        [$x1, $y1, $s1] = self::centred($x1, $y1);
        [$x2, $y2, $s2] = self::centred($x2, $y2);
        $limit = ($within * 0.5 * ($s1 + $s2)) ** 2;
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $best = [];
        for ($draw = 0, $draws = self::MOST; $draw < $draws; ++$draw) {
            $chosen = [];
            while (\count($chosen) < self::DRAWN) {
                $chosen[$random->getInt(0, $n - 1)] = true;
            }
            $in = self::inliers(self::matrix($x1, $y1, $x2, $y2, array_keys($chosen)), $x1, $y1, $x2, $y2, $limit);
            if (\count($in) > \count($best)) {
                $best = $in;
                $share = \count($in) / $n;
                $free = $share ** self::DRAWN;
                $draws = $free > 0.9999 ? 1 : min(self::MOST, 20 + (int) ceil(log(1.0 - self::SURE) / log(1.0 - $free)));
            }
        }
        for ($pass = 0; $pass < 3 && \count($best) >= 2 * self::DRAWN; ++$pass) {
            $in = self::inliers(self::matrix($x1, $y1, $x2, $y2, $best), $x1, $y1, $x2, $y2, $limit);
            if (\count($in) < \count($best)) {
                break;
            }
            $best = $in;
        }

        return \count($best) >= 2 * self::DRAWN ? $best : [];
    }

    /**
     * About their middle, at a mean distance of the root of two.
     *
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{list<float>, list<float>, float} and by how much
     */
    private static function centred(array $x, array $y): array
    {
        $n = \count($x);
        [$mx, $my] = [array_sum($x) / $n, array_sum($y) / $n];
        $sum = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            $sum += hypot($x[$i] - $mx, $y[$i] - $my);
        }
        $s = $sum > 0.0 ? \M_SQRT2 * $n / $sum : 1.0;

        return [
            array_map(static fn (float $v): float => $s * ($v - $mx), $x),
            array_map(static fn (float $v): float => $s * ($v - $my), $y), $s,
        ];
    }

    /**
     * The vector of nine that A nearly takes to nothing: inverse iteration on A'A.
     *
     * @param list<float> $x1
     * @param list<float> $y1
     * @param list<float> $x2
     * @param list<float> $y2
     * @param list<int>   $of
     *
     * @return list<float>
     */
    private static function matrix(array $x1, array $y1, array $x2, array $y2, array $of): array
    {
        $m = array_fill(0, 81, 0.0);
        foreach ($of as $i) {
            [$a, $b, $c, $d] = [$x1[$i], $y1[$i], $x2[$i], $y2[$i]];
            $row = [$c * $a, $c * $b, $c, $d * $a, $d * $b, $d, $a, $b, 1.0];
            for ($p = 0; $p < 9; ++$p) {
                for ($q = 0; $q <= $p; ++$q) {
                    $m[9 * $p + $q] += $row[$p] * $row[$q];
                }
            }
        }
        $trace = 0.0;
        for ($p = 0; $p < 9; ++$p) {
            $trace += $m[10 * $p];
        }
        // Cholesky, with a little on the diagonal.
        for ($p = 0; $p < 9; ++$p) {
            $m[10 * $p] += 1e-10 * $trace;
            for ($q = 0; $q <= $p; ++$q) {
                $sum = $m[9 * $p + $q];
                for ($k = 0; $k < $q; ++$k) {
                    $sum -= $m[9 * $p + $k] * $m[9 * $q + $k];
                }
                $m[9 * $p + $q] = $p === $q ? sqrt(max($sum, 1e-300)) : $sum / $m[10 * $q];
            }
        }
        $v = [0.31, -0.27, 0.35, 0.29, 0.33, -0.36, -0.30, 0.34, 0.28];
        for ($pass = 0; $pass < 6; ++$pass) {
            for ($p = 0; $p < 9; ++$p) {
                for ($k = 0; $k < $p; ++$k) {
                    $v[$p] -= $m[9 * $p + $k] * $v[$k];
                }
                $v[$p] /= $m[10 * $p];
            }
            for ($p = 8; $p >= 0; --$p) {
                for ($k = $p + 1; $k < 9; ++$k) {
                    $v[$p] -= $m[9 * $k + $p] * $v[$k];
                }
                $v[$p] /= $m[10 * $p];
            }
            $length = sqrt(array_sum(array_map(static fn (float $c): float => $c * $c, $v)));
            $v = array_map(static fn (float $c): float => $c / $length, $v);
        }

        return $v;
    }

    /**
     * @param list<float> $f
     * @param list<float> $x1
     * @param list<float> $y1
     * @param list<float> $x2
     * @param list<float> $y2
     *
     * @return list<int>
     */
    private static function inliers(array $f, array $x1, array $y1, array $x2, array $y2, float $limit): array
    {
        [$f0, $f1, $f2, $f3, $f4, $f5, $f6, $f7, $f8] = $f;
        $in = [];
        foreach ($x1 as $i => $a) {
            [$b, $c, $d] = [$y1[$i], $x2[$i], $y2[$i]];
            $u = $f0 * $a + $f1 * $b + $f2;
            $v = $f3 * $a + $f4 * $b + $f5;
            $w = $f6 * $a + $f7 * $b + $f8;
            $s = $f0 * $c + $f3 * $d + $f6;
            $t = $f1 * $c + $f4 * $d + $f7;
            $off = $c * $u + $d * $v + $w;
            if ($off * $off < $limit * ($u * $u + $v * $v + $s * $s + $t * $t)) {
                $in[] = $i;
            }
        }

        return $in;
    }
}
