<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * Delaunay triangulation of points in the plane, exact for the coordinates it is given.
 *
 * Incremental insertion along a Hilbert curve, location by walking, Lawson's flips; the outside is triangulated to
 * a vertex at infinity, so the hull needs no special box (Guibas and Stolfi 1985; Amenta, Choi and Rote 2003 for the
 * order). Exact signs by {@see Predicate}. Half-edge 3 t + k of triangle t runs from its vertex k to the next.
 */
final class Delaunay
{
    private const HILBERT_BITS = 16;

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{triangles: list<int>, opposite: list<int>, duplicates: array<int, int>} anticlockwise triangles, three
     *                                                                                        vertices each; opposite half-edge or -1 on the hull;
     *                                                                                        points that coincide exactly with an earlier one
     *
     * @throws UnusableInput fewer than three points, or all on one line
     */
    public static function triangulate(array $x, array $y): array
    {
        $n = \count($x);
        if ($n < 3) {
            throw new UnusableInput('', \sprintf('a surface needs at least three points, there are %d', $n));
        }
        $order = self::hilbertOrder($x, $y);

        // The first triangle: two different points and one off their line.
        $i0 = $order[0];
        $i1 = $i2 = -1;
        $at1 = $at2 = 0;
        for ($k = 1; $k < $n && $i2 < 0; ++$k) {
            $i = $order[$k];
            if ($i1 < 0) {
                if ($x[$i] !== $x[$i0] || $y[$i] !== $y[$i0]) {
                    $i1 = $i;
                    $at1 = $k;
                }
            } else {
                $turn = Predicate::orient($x[$i0], $y[$i0], $x[$i1], $y[$i1], $x[$i], $y[$i]);
                if (0.0 !== $turn) {
                    $i2 = $i;
                    $at2 = $k;
                    if ($turn < 0.0) {
                        [$i1, $i2] = [$i2, $i1];
                    }
                }
            }
        }
        if ($i2 < 0) {
            throw new UnusableInput('', 'all points lie on one line; a surface needs points off it');
        }

        $ghost = $n;
        $size = 3 * (2 * $n + 2);
        $tri = array_fill(0, $size, 0);
        $opp = array_fill(0, $size, -1);
        foreach ([[$i0, $i1, $i2], [$i1, $i0, $ghost], [$i2, $i1, $ghost], [$i0, $i2, $ghost]] as $t => $corners) {
            foreach ($corners as $k => $corner) {
                $tri[3 * $t + $k] = $corner;
            }
        }
        foreach ([[0, 3], [1, 6], [2, 9], [4, 11], [7, 5], [10, 8]] as [$a, $b]) {
            $opp[$a] = $b;
            $opp[$b] = $a;
        }
        $used = 4;
        $duplicates = [];
        $stack = array_fill(0, 64, 0);
        $t = 0;
        $circleBound = Predicate::CIRCLE_BOUND;
        $orientBound = Predicate::ORIENT_BOUND;
        $exactBelow = Predicate::EXACT_BELOW;

        for ($k = 1; $k < $n; ++$k) {
            if ($k === $at1 || $k === $at2) {
                continue;
            }
            $p = $order[$k];
            $px = $x[$p];
            $py = $y[$p];

            // Walk to the triangle that holds p, or to the outside across an edge that sees it.
            $h = 3 * $t;
            if ($tri[$h] === $ghost) {
                $h = $opp[$h + 1] - $opp[$h + 1] % 3;
            } elseif ($tri[$h + 1] === $ghost) {
                $h = $opp[$h + 2] - $opp[$h + 2] % 3;
            } elseif ($tri[$h + 2] === $ghost) {
                $h = $opp[$h] - $opp[$h] % 3;
            }
            $a = $tri[$h];
            $b = $tri[$h + 1];
            $c = $tri[$h + 2];
            $entry = -1;
            while (true) {
                $ax = $x[$a] - $px;
                $ay = $y[$a] - $py;
                $bx = $x[$b] - $px;
                $by = $y[$b] - $py;
                $cx = $x[$c] - $px;
                $cy = $y[$c] - $py;
                $zero = false;
                $cross = -1;
                if ($entry !== $h) {
                    $l = $ax * $by;
                    $r = $ay * $bx;
                    $det = $l - $r;
                    if ($det < ($bound = $orientBound * (abs($l) + abs($r))) && -$det <= $bound) {
                        $det = Predicate::orientExact($x[$a], $y[$a], $x[$b], $y[$b], $px, $py);
                    }
                    if ($det < 0.0) {
                        $cross = $h;
                    } elseif (0.0 === $det) {
                        $zero = true;
                    }
                }
                if ($cross < 0 && $entry !== $h + 1) {
                    $l = $bx * $cy;
                    $r = $by * $cx;
                    $det = $l - $r;
                    if ($det < ($bound = $orientBound * (abs($l) + abs($r))) && -$det <= $bound) {
                        $det = Predicate::orientExact($x[$b], $y[$b], $x[$c], $y[$c], $px, $py);
                    }
                    if ($det < 0.0) {
                        $cross = $h + 1;
                    } elseif (0.0 === $det) {
                        $zero = true;
                    }
                }
                if ($cross < 0 && $entry !== $h + 2) {
                    $l = $cx * $ay;
                    $r = $cy * $ax;
                    $det = $l - $r;
                    if ($det < ($bound = $orientBound * (abs($l) + abs($r))) && -$det <= $bound) {
                        $det = Predicate::orientExact($x[$c], $y[$c], $x[$a], $y[$a], $px, $py);
                    }
                    if ($det < 0.0) {
                        $cross = $h + 2;
                    } elseif (0.0 === $det) {
                        $zero = true;
                    }
                }
                if ($cross < 0) {
                    if ($zero) {
                        if (0.0 === $ax && 0.0 === $ay) {
                            $duplicates[$p] = $a;
                        } elseif (0.0 === $bx && 0.0 === $by) {
                            $duplicates[$p] = $b;
                        } elseif (0.0 === $cx && 0.0 === $cy) {
                            $duplicates[$p] = $c;
                        }
                    }
                    break;
                }
                $entry = $opp[$cross];
                $h = $entry - $entry % 3;
                $a = $tri[$h];
                $b = $tri[$h + 1];
                $c = $tri[$h + 2];
                if ($a === $ghost || $b === $ghost || $c === $ghost) {
                    break;
                }
            }
            $t = intdiv($h, 3);
            if (isset($duplicates[$p])) {
                continue;
            }

            // Split (a, b, c) at p: (a, b, p), (b, c, p), (c, a, p).
            $h1 = 3 * $used;
            $h2 = $h1 + 3;
            $used += 2;
            $o1 = $opp[$h + 1];
            $o2 = $opp[$h + 2];
            $tri[$h + 2] = $p;
            $tri[$h1] = $b;
            $tri[$h1 + 1] = $c;
            $tri[$h1 + 2] = $p;
            $tri[$h2] = $c;
            $tri[$h2 + 1] = $a;
            $tri[$h2 + 2] = $p;
            $opp[$h + 1] = $h1 + 2;
            $opp[$h1 + 2] = $h + 1;
            $opp[$h + 2] = $h2 + 1;
            $opp[$h2 + 1] = $h + 2;
            $opp[$h1] = $o1;
            $opp[$o1] = $h1;
            $opp[$h1 + 1] = $h2 + 2;
            $opp[$h2 + 2] = $h1 + 1;
            $opp[$h2] = $o2;
            $opp[$o2] = $h2;

            $stack[0] = $h;
            $stack[1] = $h1;
            $stack[2] = $h2;
            $top = 3;
            while ($top > 0) {
                $a = $stack[--$top];
                $b = $opp[$a];
                $am = $a % 3;
                $bm = $b % 3;
                $al = 2 === $am ? $a - 2 : $a + 1;
                $ar = 0 === $am ? $a + 2 : $a - 1;
                $bl = 0 === $bm ? $b + 2 : $b - 1;
                $pr = $tri[$a];
                $pl = $tri[$al];
                $q = $tri[$bl];
                // p against the circle through (pl, pr, q), which runs anticlockwise.
                if ($q === $ghost) {
                    $u = $pl;
                    $v = $pr;
                } elseif ($pl === $ghost) {
                    $u = $pr;
                    $v = $q;
                } elseif ($pr === $ghost) {
                    $u = $q;
                    $v = $pl;
                } else {
                    $u = -1;
                    $v = -1;
                }
                if ($u >= 0) {
                    $ux = $x[$u] - $px;
                    $uy = $y[$u] - $py;
                    $vx = $x[$v] - $px;
                    $vy = $y[$v] - $py;
                    $det = Predicate::orient($x[$u], $y[$u], $x[$v], $y[$v], $px, $py);
                    $conflict = $det > 0.0 || (0.0 === $det && $ux * $vx + $uy * $vy < 0.0);
                } else {
                    $ax = $x[$pl] - $px;
                    $ay = $y[$pl] - $py;
                    $bx = $x[$pr] - $px;
                    $by = $y[$pr] - $py;
                    $cx = $x[$q] - $px;
                    $cy = $y[$q] - $py;
                    $bc = $bx * $cy;
                    $cb = $cx * $by;
                    $ca = $cx * $ay;
                    $ac = $ax * $cy;
                    $ab = $ax * $by;
                    $ba = $bx * $ay;
                    $aLift = $ax * $ax + $ay * $ay;
                    $bLift = $bx * $bx + $by * $by;
                    $cLift = $cx * $cx + $cy * $cy;
                    $det = $aLift * ($bc - $cb) + $bLift * ($ca - $ac) + $cLift * ($ab - $ba);
                    $permanent = (abs($bc) + abs($cb)) * $aLift + (abs($ca) + abs($ac)) * $bLift + (abs($ab) + abs($ba)) * $cLift;
                    $bound = $circleBound * $permanent;
                    if ($det > $bound) {
                        $conflict = true;
                    } elseif (-$det > $bound) {
                        $conflict = false;
                    } elseif ($permanent < $exactBelow && $ax === floor($ax) && $ay === floor($ay) && $bx === floor($bx) && $by === floor($by) && $cx === floor($cx) && $cy === floor($cy)) {
                        $conflict = $det > 0.0;
                    } else {
                        $conflict = Predicate::inCircleExact($x[$pl], $y[$pl], $x[$pr], $y[$pr], $x[$q], $y[$q], $px, $py) > 0.0;
                    }
                }
                if ($conflict) {
                    $br = 2 === $bm ? $b - 2 : $b + 1;
                    $oa = $opp[$bl];
                    $ob = $opp[$ar];
                    $tri[$a] = $q;
                    $tri[$b] = $p;
                    $opp[$a] = $oa;
                    $opp[$oa] = $a;
                    $opp[$b] = $ob;
                    $opp[$ob] = $b;
                    $opp[$ar] = $bl;
                    $opp[$bl] = $ar;
                    $stack[$top++] = $a;
                    $stack[$top++] = $br;
                }
            }
        }

        return self::withoutGhosts($tri, $opp, $used, $ghost) + ['duplicates' => $duplicates];
    }

    /**
     * @param list<int> $tri
     * @param list<int> $opp
     *
     * @return array{triangles: list<int>, opposite: list<int>}
     */
    private static function withoutGhosts(array $tri, array $opp, int $used, int $ghost): array
    {
        $shift = array_fill(0, 3 * $used, -1);
        $next = 0;
        $end = 3 * $used;
        for ($h = 0; $h < $end; $h += 3) {
            if ($tri[$h] !== $ghost && $tri[$h + 1] !== $ghost && $tri[$h + 2] !== $ghost) {
                $shift[$h] = $next;
                $shift[$h + 1] = $next + 1;
                $shift[$h + 2] = $next + 2;
                $next += 3;
            }
        }
        $triangles = array_fill(0, $next, 0);
        $opposite = array_fill(0, $next, -1);
        for ($h = 0; $h < $end; ++$h) {
            $to = $shift[$h];
            if ($to >= 0) {
                $triangles[$to] = $tri[$h];
                $opposite[$to] = $shift[$opp[$h]];
            }
        }

        return ['triangles' => $triangles, 'opposite' => $opposite];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return list<int>
     */
    private static function hilbertOrder(array $x, array $y): array
    {
        $minX = min($x);
        $minY = min($y);
        $extent = max(max($x) - $minX, max($y) - $minY);
        $n = \count($x);
        $side = 1 << self::HILBERT_BITS;
        $scale = $extent > 0.0 ? ($side - 1) / $extent : 0.0;
        $keys = array_fill(0, $n, 0);
        for ($i = 0; $i < $n; ++$i) {
            $u = (int) (($x[$i] - $minX) * $scale);
            $v = (int) (($y[$i] - $minY) * $scale);
            $d = 0;
            for ($s = $side >> 1; $s > 0; $s >>= 1) {
                $ru = ($u & $s) > 0 ? 1 : 0;
                $rv = ($v & $s) > 0 ? 1 : 0;
                $d = ($d << 2) | ((3 * $ru) ^ $rv);
                if (0 === $rv) {
                    if (1 === $ru) {
                        $u = $side - 1 - $u;
                        $v = $side - 1 - $v;
                    }
                    $swap = $u;
                    $u = $v;
                    $v = $swap;
                }
            }
            $keys[$i] = ($d << 30) | $i;
        }
        sort($keys, \SORT_NUMERIC);
        for ($i = 0; $i < $n; ++$i) {
            $keys[$i] &= 0x3FFFFFFF;
        }

        return $keys;
    }
}
