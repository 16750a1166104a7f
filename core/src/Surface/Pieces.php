<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** The convex pieces two surfaces cut each other into, plan seen, one after the other without keeping them; metres. */
final readonly class Pieces
{
    private const TO_A_SQUARE = 32;
    private Tin $tin;
    private Tin $other;
    private Locator $locator;

    public function __construct(Tin $tin, Tin $other)
    {
        $this->tin = self::byPlace($tin);
        $this->other = self::byPlace($other);
        $this->locator = new Locator($this->other);
    }

    /**
     * Gives every piece: corners in order, height of the surface and of the other at each, and how many corners there are: what
     * stands behind them in the lists is of pieces before (Sutherland and Hodgman 1974 on the pairs of triangles whose boxes meet).
     *
     * @param \Closure(list<float>, list<float>, list<float>, list<float>, int): void $piece
     * @param int $part of so many parts of the surface, counted from 0
     */
    public function each(\Closure $piece, int $part = 0, int $parts = 1): void
    {
        $tin = $this->tin;
        $other = $this->other;
        $locator = $this->locator;
        $t = $tin->triangles;
        $o = $other->triangles;
        $tx = $tin->x;
        $ty = $tin->y;
        $tz = $tin->z;
        $ox = $other->x;
        $oy = $other->y;
        $oz = $other->z;
        // Corners of a piece: three of the one, and one more for each edge of the other at most. Kept for all pieces.
        $px = $py = $pz = $qx = $qy = $qz = $side = $below = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        // Plain assignments: taking arrays apart would make one for each of millions of pairs.
        $count = $tin->triangleCount();
        for ($h = 3 * intdiv($count * $part, $parts), $end = 3 * intdiv($count * ($part + 1), $parts); $h < $end; $h += 3) {
            $a = $t[$h];
            $b = $t[$h + 1];
            $c = $t[$h + 2];
            $ax = $tx[$a];
            $ay = $ty[$a];
            $bx = $tx[$b];
            $by = $ty[$b];
            $cx = $tx[$c];
            $cy = $ty[$c];
            $west = min($ax, $bx, $cx);
            $east = max($ax, $bx, $cx);
            $south = min($ay, $by, $cy);
            $north = max($ay, $by, $cy);
            $abx = $bx - $ax;
            $aby = $by - $ay;
            $bcx = $cx - $bx;
            $bcy = $cy - $by;
            $cax = $ax - $cx;
            $cay = $ay - $cy;
            foreach ($locator->near($west, $south, $east, $north) as $g) {
                $u = $o[$g];
                $v = $o[$g + 1];
                $w = $o[$g + 2];
                $ux = $ox[$u];
                $vx = $ox[$v];
                $wx = $ox[$w];
                if ($ux < $west && $vx < $west && $wx < $west || $ux > $east && $vx > $east && $wx > $east) {
                    continue;
                }
                $uy = $oy[$u];
                $vy = $oy[$v];
                $wy = $oy[$w];
                // Most pairs only lie near each other: an edge of one has the whole other on its outer side.
                if ($uy < $south && $vy < $south && $wy < $south || $uy > $north && $vy > $north && $wy > $north
                    || $abx * ($uy - $ay) < $aby * ($ux - $ax) && $abx * ($vy - $ay) < $aby * ($vx - $ax)
                        && $abx * ($wy - $ay) < $aby * ($wx - $ax)
                    || $bcx * ($uy - $by) < $bcy * ($ux - $bx) && $bcx * ($vy - $by) < $bcy * ($vx - $bx)
                        && $bcx * ($wy - $by) < $bcy * ($wx - $bx)
                    || $cax * ($uy - $cy) < $cay * ($ux - $cx) && $cax * ($vy - $cy) < $cay * ($vx - $cx)
                        && $cax * ($wy - $cy) < $cay * ($wx - $cx)) {
                    continue;
                }
                // And the same the other way round; an edge that has the whole of it on its inner side cuts nothing.
                $vux = $vx - $ux;
                $vuy = $vy - $uy;
                $a0 = $vux * ($ay - $uy) - $vuy * ($ax - $ux);
                $b0 = $vux * ($by - $uy) - $vuy * ($bx - $ux);
                $c0 = $vux * ($cy - $uy) - $vuy * ($cx - $ux);
                if ($a0 < 0.0 && $b0 < 0.0 && $c0 < 0.0) {
                    continue;
                }
                $wvx = $wx - $vx;
                $wvy = $wy - $vy;
                $a1 = $wvx * ($ay - $vy) - $wvy * ($ax - $vx);
                $b1 = $wvx * ($by - $vy) - $wvy * ($bx - $vx);
                $c1 = $wvx * ($cy - $vy) - $wvy * ($cx - $vx);
                if ($a1 < 0.0 && $b1 < 0.0 && $c1 < 0.0) {
                    continue;
                }
                $uwx = $ux - $wx;
                $uwy = $uy - $wy;
                $a2 = $uwx * ($ay - $wy) - $uwy * ($ax - $wx);
                $b2 = $uwx * ($by - $wy) - $uwy * ($bx - $wx);
                $c2 = $uwx * ($cy - $wy) - $uwy * ($cx - $wx);
                if ($a2 < 0.0 && $b2 < 0.0 && $c2 < 0.0) {
                    continue;
                }
                $px[0] = $ax;
                $px[1] = $bx;
                $px[2] = $cx;
                $py[0] = $ay;
                $py[1] = $by;
                $py[2] = $cy;
                $pz[0] = $tz[$a];
                $pz[1] = $tz[$b];
                $pz[2] = $tz[$c];
                $n = 3;
                // The part left of each edge of the other, one after the other.
                for ($edge = 0; $edge < 3 && $n > 2; ++$edge) {
                    if (0 === $edge) {
                        if ($a0 >= 0.0 && $b0 >= 0.0 && $c0 >= 0.0) {
                            continue;
                        }
                        $fx = $ux;
                        $fy = $uy;
                        $dx = $vux;
                        $dy = $vuy;
                    } elseif (1 === $edge) {
                        if ($a1 >= 0.0 && $b1 >= 0.0 && $c1 >= 0.0) {
                            continue;
                        }
                        $fx = $vx;
                        $fy = $vy;
                        $dx = $wvx;
                        $dy = $wvy;
                    } else {
                        if ($a2 >= 0.0 && $b2 >= 0.0 && $c2 >= 0.0) {
                            continue;
                        }
                        $fx = $wx;
                        $fy = $wy;
                        $dx = $uwx;
                        $dy = $uwy;
                    }
                    $out = 0;
                    for ($k = 0; $k < $n; ++$k) {
                        $s = $dx * ($py[$k] - $fy) - $dy * ($px[$k] - $fx);
                        $side[$k] = $s;
                        if ($s < 0.0) {
                            ++$out;
                        }
                    }
                    if (0 === $out) {
                        continue;
                    }
                    $m = 0;
                    for ($k = 0; $k < $n && $out < $n; ++$k) {
                        $next = $k + 1 === $n ? 0 : $k + 1;
                        $s = $side[$k];
                        $to = $side[$next];
                        if ($s >= 0.0) {
                            $qx[$m] = $px[$k];
                            $qy[$m] = $py[$k];
                            $qz[$m] = $pz[$k];
                            ++$m;
                        }
                        if ($s > 0.0 && $to < 0.0 || $s < 0.0 && $to > 0.0) {
                            $f = $s / ($s - $to);
                            $qx[$m] = $px[$k] + $f * ($px[$next] - $px[$k]);
                            $qy[$m] = $py[$k] + $f * ($py[$next] - $py[$k]);
                            $qz[$m] = $pz[$k] + $f * ($pz[$next] - $pz[$k]);
                            ++$m;
                        }
                    }
                    for ($k = 0; $k < $m; ++$k) {
                        $px[$k] = $qx[$k];
                        $py[$k] = $qy[$k];
                        $pz[$k] = $qz[$k];
                    }
                    $n = $m;
                }
                if ($n < 3) {
                    continue;
                }
                // Locator::heightIn, what is the same for all corners taken once.
                $uz = $oz[$u];
                $vuz = $oz[$v] - $uz;
                $wux = $wx - $ux;
                $wuy = $wy - $uy;
                $wuz = $oz[$w] - $uz;
                $det = $vux * $wuy - $vuy * $wux;
                for ($k = 0; $k < $n; ++$k) {
                    $dx = $px[$k] - $ux;
                    $dy = $py[$k] - $uy;
                    $below[$k] = $uz + ($dx * $wuy - $dy * $wux) / $det * $vuz + ($vux * $dy - $vuy * $dx) / $det * $wuz;
                }
                $piece($px, $py, $pz, $below, $n);
            }
        }
    }

    /**
     * The same surface, triangles and corners that are neighbours in plan one after the other in memory too: where points came in
     * any order, this halves the time. Without the neighbours of its edges.
     */
    private static function byPlace(Tin $tin): Tin
    {
        $number = $x = $y = $z = $triangles = [];
        foreach (self::order($tin) as $h) {
            for ($k = $h; $k < $h + 3; ++$k) {
                $v = $tin->triangles[$k];
                $new = $number[$v] ?? null;
                if (null === $new) {
                    $number[$v] = $new = \count($x);
                    $x[] = $tin->x[$v];
                    $y[] = $tin->y[$v];
                    $z[] = $tin->z[$v];
                }
                $triangles[] = $new;
            }
        }

        return new Tin($x, $y, $z, $triangles, []);
    }

    /** @return list<int> first half-edges of the triangles, from square to neighbouring square */
    private static function order(Tin $tin): array
    {
        $x = $tin->x;
        $y = $tin->y;
        $t = $tin->triangles;
        $count = $tin->triangleCount();
        $west = min($x);
        $south = min($y);
        $across = max(1, (int) sqrt($count / self::TO_A_SQUARE));
        $side = max(max($x) - $west, max($y) - $south, 1e-9) / $across * (1.0 + 1e-9);
        $begin = array_fill(0, ($across + 1) ** 2 + 1, 0);
        $square = [];
        for ($h = 0; $h < 3 * $count; $h += 3) {
            $row = (int) (($y[$t[$h]] - $south) / $side);
            $column = (int) (($x[$t[$h]] - $west) / $side);
            // Back and forth, so that the next square is always a neighbour.
            $q = $row * ($across + 1) + (0 === $row % 2 ? $column : $across - $column);
            $square[] = $q;
            ++$begin[$q + 1];
        }
        for ($q = 0, $end = \count($begin) - 1; $q < $end; ++$q) {
            $begin[$q + 1] += $begin[$q];
        }
        $order = array_fill(0, max(1, $count), 0);
        foreach ($square as $i => $q) {
            $order[$begin[$q]++] = 3 * $i;
        }

        return 0 === $count ? [] : array_values($order);
    }
}
