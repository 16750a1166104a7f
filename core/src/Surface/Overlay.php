<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Corners;

/**
 * The pieces two surfaces cut each other into, plan seen: over each of them both are plane, so that what lies between is a
 * prism with plane ends. Flat arrays; metres.
 */
final readonly class Overlay
{
    private const TO_A_SQUARE = 32;

    /**
     * @param list<float> $x        of the pieces' corners
     * @param list<float> $y
     * @param list<float> $upper    height of the surface there
     * @param list<float> $lower    height of what it is compared with
     * @param list<int>   $triangles three corners each, anticlockwise
     */
    private function __construct(public array $x, public array $y, public array $upper, public array $lower, public array $triangles)
    {
    }

    public static function withElevation(Tin $tin, float $elevation): self
    {
        return new self($tin->x, $tin->y, $tin->z, array_fill(0, max(1, \count($tin->x)), $elevation), $tin->triangles);
    }

    /** @throws UnusableInput no common area */
    public static function withSurface(Tin $tin, Tin $other): self
    {
        $x = $y = $upper = $lower = [];
        /** @var list<int> $triangles */
        $triangles = [];
        $keep = static function (array $px, array $py, array $pu, array $pl, int $n) use (&$x, &$y, &$upper, &$lower, &$triangles): void {
            $first = \count($x);
            for ($k = 0; $k < $n; ++$k) {
                $x[] = $px[$k];
                $y[] = $py[$k];
                $upper[] = $pu[$k];
                $lower[] = $pl[$k];
                if ($k > 1) {
                    array_push($triangles, $first, $first + $k - 1, $first + $k);
                }
            }
        };
        self::walk($tin, $other, $keep);
        if ([] === $triangles) {
            throw new UnusableInput('', 'the two surfaces have no common area');
        }

        return new self($x, $y, $upper, $lower, $triangles);
    }

    /**
     * Gives every piece: corners in order, height of the surface and of the other at each, and how many corners there are: what
     * stands behind them in the lists is of pieces before (Sutherland and Hodgman 1974 on the pairs of triangles whose boxes meet).
     *
     * @param \Closure(list<float>, list<float>, list<float>, list<float>, int): void $piece
     */
    public static function walk(Tin $tin, Tin $other, \Closure $piece): void
    {
        $locator = new Locator($other);
        $t = $tin->triangles;
        $o = $other->triangles;
        $tx = $tin->x;
        $ty = $tin->y;
        $tz = $tin->z;
        $ox = $other->x;
        $oy = $other->y;
        // Corners of a piece: three of the one, and one more for each edge of the other at most. Kept for all pieces.
        $px = $py = $pz = $qx = $qy = $qz = $side = $below = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        // Plain assignments: taking arrays apart would make one for each of millions of pairs.
        foreach (self::byPlace($tin) as $h) {
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
                        $fx = $ux;
                        $fy = $uy;
                        $dx = $vx - $ux;
                        $dy = $vy - $uy;
                    } elseif (1 === $edge) {
                        $fx = $vx;
                        $fy = $vy;
                        $dx = $wx - $vx;
                        $dy = $wy - $vy;
                    } else {
                        $fx = $wx;
                        $fy = $wy;
                        $dx = $ux - $wx;
                        $dy = $uy - $wy;
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
                for ($k = 0; $k < $n; ++$k) {
                    $below[$k] = $locator->heightIn($g, $px[$k], $py[$k]);
                }
                $piece($px, $py, $pz, $below, $n);
            }
        }
    }

    /**
     * First half-edges of the triangles, neighbours in plan one after the other: what is looked at of the other surface then lies
     * near what was just looked at, which halves the time where points come in any order.
     *
     * @return list<int>
     */
    private static function byPlace(Tin $tin): array
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

    /**
     * What lies between, as a surface of its own: heights are differences, positive where the surface is above. Corners
     * that meet are one, so that lines of equal difference run through.
     */
    public function isopach(): Tin
    {
        $difference = [];
        foreach ($this->upper as $i => $height) {
            $difference[] = $height - $this->lower[$i];
        }
        $same = (new Corners($this->x, $this->y, array_fill(0, \count($this->x), 0.0)))->same;
        $number = $x = $y = $z = [];
        foreach ($same as $i => $first) {
            if (!isset($number[$first])) {
                $number[$first] = \count($x);
                $x[] = $this->x[$i];
                $y[] = $this->y[$i];
                $z[] = $difference[$i];
            }
        }
        $triangles = [];
        for ($h = 0, $end = \count($this->triangles); $h < $end; $h += 3) {
            $a = $number[$same[$this->triangles[$h]]];
            $b = $number[$same[$this->triangles[$h + 1]]];
            $c = $number[$same[$this->triangles[$h + 2]]];
            // What became a line on merging holds nothing.
            if ($a !== $b && $b !== $c && $a !== $c && ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) > ($x[$c] - $x[$a]) * ($y[$b] - $y[$a])) {
                array_push($triangles, $a, $b, $c);
            }
        }

        return Tin::ofTriangles($x, $y, $z, $triangles);
    }
}
