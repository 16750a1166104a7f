<?php

declare(strict_types=1);

namespace Mensura\Matching;

/**
 * Features of two images that look alike: each the other's nearest, and clearly nearer than the next (Lowe 2004, section 7.1). What
 * differs in too many bits is not looked at: of 128 bits 64 differ by chance, of true matches seldom more than 40.
 */
final class Matches
{
    /** Square of how much nearer the nearest is than the next. */
    private const RATIO = 0.64;
    /** Square of the distance beyond which two are not alike, whatever else there is. */
    private const FAR = 0.45;
    private const BITS = 44;

    /** @var list<int> ones in a number of 16 bits */
    private static array $ones = [];

    /** @return list<array{int, int}> */
    public static function of(Features $a, Features $b): array
    {
        if ([] === self::$ones) {
            self::$ones = [0];
            for ($k = 1; $k < 65536; ++$k) {
                self::$ones[] = self::$ones[$k >> 1] + ($k & 1);
            }
        }
        [$n, $m] = [$a->count(), $b->count()];
        [$p, $q] = [$a->descriptors, $b->descriptors];
        [$f, $g, $ones] = [$a->bits(), $b->bits(), self::$ones];
        $best = array_fill(0, $n, -1);
        $least = $next = array_fill(0, $n, self::FAR / self::RATIO);
        $back = array_fill(0, $m, -1);
        $nearest = array_fill(0, $m, 4.0);
        for ($i = 0; $i < $n; ++$i) {
            [$f0, $f1, $f2, $f3] = [$f[4 * $i], $f[4 * $i + 1], $f[4 * $i + 2], $f[4 * $i + 3]];
            for ($j = 0; $j < $m; ++$j) {
                $x = $f0 ^ $g[4 * $j];
                $y = $f1 ^ $g[4 * $j + 1];
                $count = $ones[$x & 0xFFFF] + $ones[$x >> 16] + $ones[$y & 0xFFFF] + $ones[$y >> 16];
                if ($count > self::BITS - 12) {
                    continue;
                }
                $x = $f2 ^ $g[4 * $j + 2];
                $y = $f3 ^ $g[4 * $j + 3];
                $count += $ones[$x & 0xFFFF] + $ones[$x >> 16] + $ones[$y & 0xFFFF] + $ones[$y >> 16];
                if ($count > self::BITS) {
                    continue;
                }
                $sum = self::apart($p, $q, $i * Features::LENGTH, $j * Features::LENGTH);
                if ($sum < $nearest[$j]) {
                    $nearest[$j] = $sum;
                    $back[$j] = $i;
                }
                if ($sum < $least[$i]) {
                    $next[$i] = $least[$i];
                    $least[$i] = $sum;
                    $best[$i] = $j;
                } elseif ($sum < $next[$i]) {
                    $next[$i] = $sum;
                }
            }
        }
        $pairs = [];
        foreach ($best as $i => $j) {
            if ($j >= 0 && $back[$j] === $i && $least[$i] < self::RATIO * $next[$i]) {
                $pairs[] = [$i, $j];
            }
        }

        return $pairs;
    }

    /**
     * @param list<float> $p
     * @param list<float> $q
     */
    private static function apart(array $p, array $q, int $at, int $to): float
    {
        $sum = 0.0;
        for ($k = 0; $k < Features::LENGTH; ++$k) {
            $d = $p[$at + $k] - $q[$to + $k];
            $sum += $d * $d;
        }

        return $sum;
    }
}
