<?php

declare(strict_types=1);

namespace Demo\Flight;

/** How things look: noise between the corners of squares of several sizes, the same at every run. */
final class Texture
{
    /**
     * @param list<array{float, float, float, float}> $layers size of the squares, share, cosine and sine they are turned by
     *
     * @return float between 0 and the sum of shares
     */
    public static function at(float $x, float $y, array $layers): float
    {
        $sum = 0.0;
        foreach ($layers as $k => [$size, $part, $c, $s]) {
            [$u, $v] = [($c * $x + $s * $y) / $size, 400.0 + ($c * $y - $s * $x) / $size];
            [$i, $j] = [(int) $u, (int) $v];
            [$u, $v] = [$u - $i, $v - $j];
            [$u, $v] = [$u * $u * (3.0 - 2.0 * $u), $v * $v * (3.0 - 2.0 * $v)];
            $a = self::corner($i, $j, $k);
            $b = self::corner($i + 1, $j, $k);
            $c = self::corner($i, $j + 1, $k);
            $d = self::corner($i + 1, $j + 1, $k);
            $sum += $part * ($a + $u * ($b - $a) + $v * ($c - $a + $u * ($a - $b - $c + $d)));
        }

        return $sum;
    }

    /** Between 0 and 1, another for every corner and size. */
    private static function corner(int $i, int $j, int $k): float
    {
        $h = ($i * 374761393 + $j * 668265263 + $k * 974634777) & 0x7FFFFFFF;
        $h = (($h ^ ($h >> 13)) * 1274126177) & 0x7FFFFFFF;

        return (($h ^ ($h >> 16)) & 0xFFFF) / 65535.0;
    }
}
