<?php

declare(strict_types=1);

namespace Mensura\Surface;

/**
 * Exact signs of the orientation and in-circle determinants of points given as doubles.
 *
 * Floating-point filters and expansion arithmetic after Shewchuk (1997), "Adaptive precision floating-point
 * arithmetic and fast robust geometric predicates", Discrete and Computational Geometry 18. Differences whose
 * magnitude keeps every product below 2^53 are exact for integer coordinates, which is how grids of surveyed
 * points arrive here; the expansions are only for what is left.
 */
final class Predicate
{
    public const ORIENT_BOUND = 3.3306690738754716e-16;
    public const CIRCLE_BOUND = 1.1102230246251577e-15;

    /** Largest permanent for which integer arithmetic in doubles is exact. */
    public const EXACT_BELOW = 9.0e15;

    private const SPLITTER = 134217729.0;

    /** Positive when a, b, c turn anticlockwise, negative clockwise, 0 exactly on one line. */
    public static function orient(float $ax, float $ay, float $bx, float $by, float $cx, float $cy): float
    {
        $left = ($ax - $cx) * ($by - $cy);
        $right = ($ay - $cy) * ($bx - $cx);
        $det = $left - $right;
        $bound = self::ORIENT_BOUND * (abs($left) + abs($right));
        if ($det > $bound || -$det > $bound) {
            return $det;
        }

        return self::orientExact($ax, $ay, $bx, $by, $cx, $cy);
    }

    public static function orientExact(float $ax, float $ay, float $bx, float $by, float $cx, float $cy): float
    {
        // ax by - ay bx + bx cy - by cx + cx ay - cy ax
        $sum = self::product($ax, $by);
        $sum = self::sum($sum, self::product(-$ay, $bx));
        $sum = self::sum($sum, self::product($bx, $cy));
        $sum = self::sum($sum, self::product(-$by, $cx));
        $sum = self::sum($sum, self::product($cx, $ay));
        $sum = self::sum($sum, self::product(-$cy, $ax));

        return self::sign($sum);
    }

    /** Positive when d lies inside the circle through a, b, c (anticlockwise), 0 exactly on it. */
    public static function inCircle(float $ax, float $ay, float $bx, float $by, float $cx, float $cy, float $dx, float $dy): float
    {
        $adx = $ax - $dx;
        $ady = $ay - $dy;
        $bdx = $bx - $dx;
        $bdy = $by - $dy;
        $cdx = $cx - $dx;
        $cdy = $cy - $dy;
        $bc = $bdx * $cdy;
        $cb = $cdx * $bdy;
        $ca = $cdx * $ady;
        $ac = $adx * $cdy;
        $ab = $adx * $bdy;
        $ba = $bdx * $ady;
        $al = $adx * $adx + $ady * $ady;
        $bl = $bdx * $bdx + $bdy * $bdy;
        $cl = $cdx * $cdx + $cdy * $cdy;
        $det = $al * ($bc - $cb) + $bl * ($ca - $ac) + $cl * ($ab - $ba);
        $permanent = (abs($bc) + abs($cb)) * $al + (abs($ca) + abs($ac)) * $bl + (abs($ab) + abs($ba)) * $cl;
        if (abs($det) > self::CIRCLE_BOUND * $permanent) {
            return $det;
        }

        return self::inCircleExact($ax, $ay, $bx, $by, $cx, $cy, $dx, $dy);
    }

    public static function inCircleExact(float $ax, float $ay, float $bx, float $by, float $cx, float $cy, float $dx, float $dy): float
    {
        $adx = self::difference($ax, $dx);
        $ady = self::difference($ay, $dy);
        $bdx = self::difference($bx, $dx);
        $bdy = self::difference($by, $dy);
        $cdx = self::difference($cx, $dx);
        $cdy = self::difference($cy, $dy);
        $sum = self::lifted($adx, $ady, $bdx, $bdy, $cdx, $cdy);
        $sum = self::sum($sum, self::lifted($bdx, $bdy, $cdx, $cdy, $adx, $ady));
        $sum = self::sum($sum, self::lifted($cdx, $cdy, $adx, $ady, $bdx, $bdy));

        return self::sign($sum);
    }

    /**
     * (px^2 + py^2) (qx ry - rx qy).
     *
     * @param list<float> $px
     * @param list<float> $py
     * @param list<float> $qx
     * @param list<float> $qy
     * @param list<float> $rx
     * @param list<float> $ry
     *
     * @return list<float>
     */
    private static function lifted(array $px, array $py, array $qx, array $qy, array $rx, array $ry): array
    {
        $lift = self::sum(self::times($px, $px), self::times($py, $py));
        $cross = self::sum(self::times($qx, $ry), self::negate(self::times($rx, $qy)));

        return self::times($lift, $cross);
    }

    /** @return list<float> nonoverlapping, increasing magnitude, exact value of a b */
    private static function product(float $a, float $b): array
    {
        $x = $a * $b;
        $c = self::SPLITTER * $a;
        $ahi = $c - ($c - $a);
        $alo = $a - $ahi;
        $c = self::SPLITTER * $b;
        $bhi = $c - ($c - $b);
        $blo = $b - $bhi;
        $y = $alo * $blo - ((($x - $ahi * $bhi) - $alo * $bhi) - $ahi * $blo);

        return 0.0 === $y ? [$x] : [$y, $x];
    }

    /** @return list<float> */
    private static function difference(float $a, float $b): array
    {
        $x = $a - $b;
        $bv = $a - $x;
        $y = ($a - ($x + $bv)) + ($bv - $b);

        return 0.0 === $y ? [$x] : [$y, $x];
    }

    /**
     * @param list<float> $e
     * @param list<float> $f
     *
     * @return list<float> e + f, one component of f after the other (GROW-EXPANSION)
     */
    private static function sum(array $e, array $f): array
    {
        foreach ($f as $b) {
            $q = $b;
            $h = [];
            foreach ($e as $component) {
                $x = $q + $component;
                $bv = $x - $q;
                $y = ($q - ($x - $bv)) + ($component - $bv);
                if (0.0 !== $y) {
                    $h[] = $y;
                }
                $q = $x;
            }
            if (0.0 !== $q) {
                $h[] = $q;
            }
            $e = $h;
        }

        return $e;
    }

    /**
     * @param list<float> $e
     * @param list<float> $f
     *
     * @return list<float>
     */
    private static function times(array $e, array $f): array
    {
        $sum = [];
        foreach ($e as $a) {
            foreach ($f as $b) {
                $sum = self::sum($sum, self::product($a, $b));
            }
        }

        return $sum;
    }

    /**
     * @param list<float> $e
     *
     * @return list<float>
     */
    private static function negate(array $e): array
    {
        return array_map(static fn (float $v): float => -$v, $e);
    }

    /** @param list<float> $e */
    private static function sign(array $e): float
    {
        return [] === $e ? 0.0 : $e[\count($e) - 1];
    }
}
