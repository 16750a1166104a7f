<?php

declare(strict_types=1);

namespace Mensura\Image;

/**
 * The rotation of an image from rays it shares with one that is oriented, both positions known: a ray, the other image's ray to
 * the same point and the base between them lie in a plane (coplanarity; Kraus, Photogrammetry, section 4.3). Several beginnings
 * are tried, for there are several solutions; the one most points lie before of is taken.
 */
final class Coplanarity
{
    public const LEAST = 6;
    private const STEPS = 12;
    private const TURNS = 12;

    /**
     * @param array{float, float, float}       $base    from the oriented image to this one, metres
     * @param list<array{float, float, float}> $known   unit vectors of the oriented image, on the ground
     * @param list<array{float, float, float}> $own     those of this one, in its camera
     * @param list<float>                      $about   rotation it may be near to, but for a turn about its axis
     *
     * @return ?array{list<float>, float} rotation, and root mean square of the sines it is off by; null where points lie behind
     */
    public static function rotation(array $base, array $known, array $own, array $about): ?array
    {
        $l = sqrt($base[0] ** 2 + $base[1] ** 2 + $base[2] ** 2);
        if ($l <= 0.0 || \count($own) < self::LEAST) {
            return null;
        }
        $normals = [];
        foreach ($known as [$x, $y, $z]) {
            $normals[] = [($base[1] * $z - $base[2] * $y) / $l, ($base[2] * $x - $base[0] * $z) / $l, ($base[0] * $y - $base[1] * $x) / $l];
        }
        $best = null;
        for ($k = 0; $k < self::TURNS; ++$k) {
            $r = Rotation::turned($about, 0.0, 0.0, 2.0 * \M_PI * $k / self::TURNS);
            for ($step = 0; $step < self::STEPS; ++$step) {
                $r = self::better($r, $normals, $own);
            }
            $off = self::off($r, $normals, $own);
            if ((null === $best || $off < $best[1]) && 2 * self::before($r, $base, $known, $own) > \count($own)) {
                $best = [$r, $off];
            }
        }

        return $best;
    }

    /**
     * @param list<float>                      $r
     * @param list<array{float, float, float}> $normals
     * @param list<array{float, float, float}> $own
     *
     * @return list<float>
     */
    private static function better(array $r, array $normals, array $own): array
    {
        // A little is always held back: about the base itself nothing may be known.
        $n = [1e-9, 0.0, 0.0, 1e-9, 0.0, 1e-9];
        $g = [0.0, 0.0, 0.0];
        foreach ($own as $i => [$x, $y, $z]) {
            [$a, $b, $c] = $normals[$i];
            $u = $r[0] * $a + $r[3] * $b + $r[6] * $c;
            $v = $r[1] * $a + $r[4] * $b + $r[7] * $c;
            $w = $r[2] * $a + $r[5] * $b + $r[8] * $c;
            $off = $u * $x + $v * $y + $w * $z;
            [$p, $q, $s] = [$y * $w - $z * $v, $z * $u - $x * $w, $x * $v - $y * $u];
            $n[0] += $p * $p;
            $n[1] += $p * $q;
            $n[2] += $p * $s;
            $n[3] += $q * $q;
            $n[4] += $q * $s;
            $n[5] += $s * $s;
            $g[0] -= $p * $off;
            $g[1] -= $q * $off;
            $g[2] -= $s * $off;
        }
        $q = SymmetricThree::inverse($n);

        return null === $q ? $r : Rotation::turned($r, ...SymmetricThree::times($q, $g));
    }

    /**
     * @param list<float>                      $r
     * @param list<array{float, float, float}> $normals
     * @param list<array{float, float, float}> $own
     */
    private static function off(array $r, array $normals, array $own): float
    {
        $sum = 0.0;
        foreach ($own as $i => $d) {
            [$x, $y, $z] = Rotation::ground($r, $d);
            $sum += ($normals[$i][0] * $x + $normals[$i][1] * $y + $normals[$i][2] * $z) ** 2;
        }

        return sqrt($sum / \count($own));
    }

    /**
     * Points that lie before both images.
     *
     * @param list<float>                      $r
     * @param array{float, float, float}       $base
     * @param list<array{float, float, float}> $known
     * @param list<array{float, float, float}> $own
     */
    private static function before(array $r, array $base, array $known, array $own): int
    {
        $count = 0;
        foreach ($own as $i => $d) {
            $b = Rotation::ground($r, $d);
            $a = $known[$i];
            $ab = $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
            $along = $base[0] * $a[0] + $base[1] * $a[1] + $base[2] * $a[2];
            $across = $base[0] * $b[0] + $base[1] * $b[1] + $base[2] * $b[2];
            $det = 1.0 - $ab * $ab;
            if ($det > 1e-9 && $along - $ab * $across > 0.0 && $ab * $along - $across > 0.0) {
                ++$count;
            }
        }

        return $count;
    }
}
