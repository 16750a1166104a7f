<?php

declare(strict_types=1);

namespace Mensura\Image;

/**
 * From a direction in the camera to a pixel and back: focal length and principal point in pixels, radial distortion k1 to k3
 * and tangential p1, p2 (Brown 1971, "Close-range camera calibration"; signs with y down as in the contract of block).
 * Values in the order of NAMES.
 */
final class Lens
{
    public const NAMES = ['f', 'cx', 'cy', 'k1', 'k2', 'k3', 'p1', 'p2'];

    /**
     * @param list<float> $c values
     *
     * @return array{float, float} pixels, x right and y down
     */
    public static function pixel(array $c, float $x, float $y): array
    {
        [$f, $cx, $cy, $k1, $k2, $k3, $p1, $p2] = $c;
        $r2 = $x * $x + $y * $y;
        $radial = 1.0 + $r2 * ($k1 + $r2 * ($k2 + $r2 * $k3));

        return [
            $cx + $f * ($x * $radial + 2.0 * $p1 * $x * $y + $p2 * ($r2 + 2.0 * $x * $x)),
            $cy + $f * ($y * $radial + $p1 * ($r2 + 2.0 * $y * $y) + 2.0 * $p2 * $x * $y),
        ];
    }

    /**
     * Of the pixel: by x and y of the direction (xx, xy, yx, yy).
     *
     * @param list<float> $c
     *
     * @return array{float, float, float, float}
     */
    public static function slopes(array $c, float $x, float $y): array
    {
        [$f, , , $k1, $k2, $k3, $p1, $p2] = $c;
        $r2 = $x * $x + $y * $y;
        $radial = 1.0 + $r2 * ($k1 + $r2 * ($k2 + $r2 * $k3));
        $d = $k1 + $r2 * (2.0 * $k2 + 3.0 * $r2 * $k3);
        $mixed = $f * 2.0 * ($x * $y * $d + $p1 * $x + $p2 * $y);

        return [
            $f * ($radial + 2.0 * $x * $x * $d + 2.0 * $p1 * $y + 6.0 * $p2 * $x), $mixed, $mixed,
            $f * ($radial + 2.0 * $y * $y * $d + 6.0 * $p1 * $y + 2.0 * $p2 * $x),
        ];
    }

    /**
     * Of the pixel: by every value of the camera, x and y in turn.
     *
     * @param list<float> $c
     *
     * @return list<array{float, float}>
     */
    public static function byValues(array $c, float $x, float $y): array
    {
        [$f, $cx, $cy] = $c;
        [$u, $v] = self::pixel($c, $x, $y);
        $r2 = $x * $x + $y * $y;
        [$a, $b] = [$f * $x * $r2, $f * $y * $r2];

        return [
            [($u - $cx) / $f, ($v - $cy) / $f], [1.0, 0.0], [0.0, 1.0], [$a, $b], [$a * $r2, $b * $r2], [$a * $r2 * $r2, $b * $r2 * $r2],
            [$f * 2.0 * $x * $y, $f * ($r2 + 2.0 * $y * $y)], [$f * ($r2 + 2.0 * $x * $x), $f * 2.0 * $x * $y],
        ];
    }

    /**
     * The direction whose pixel this is, by Newton's method; good enough to begin with where the lens has no inverse.
     *
     * @param list<float> $c
     *
     * @return array{float, float}
     */
    public static function direction(array $c, float $u, float $v): array
    {
        [$x0, $y0] = [($u - $c[1]) / $c[0], ($v - $c[2]) / $c[0]];
        [$x, $y] = [$x0, $y0];
        for ($k = 0; $k < 20; ++$k) {
            [$a, $b] = self::pixel($c, $x, $y);
            [$xx, $xy, $yx, $yy] = self::slopes($c, $x, $y);
            $det = $xx * $yy - $xy * $yx;
            if (!is_finite($det) || $det < 0.05 * $c[0] * $c[0]) {
                return [$x0, $y0];
            }
            [$da, $db] = [$u - $a, $v - $b];
            $dx = ($yy * $da - $xy * $db) / $det;
            $dy = ($xx * $db - $yx * $da) / $det;
            $x += $dx;
            $y += $dy;
            if (abs($dx) + abs($dy) < 1e-13) {
                break;
            }
        }

        return [$x, $y];
    }
}
