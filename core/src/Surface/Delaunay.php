<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * Delaunay triangulation of points in the plane, exact for the coordinates it is given.
 *
 * Incremental insertion in biased randomized rounds, each along a Hilbert curve (Amenta, Choi and Rote 2003), location
 * by walking, Lawson's flips; the outside is triangulated to a vertex at infinity, so the hull needs no special box
 * (Guibas and Stolfi 1985). Exact signs by {@see Predicate}, behind filters that call no function. Half-edge 3 t + k of
 * triangle t runs from its vertex k to the next.
 */
final class Delaunay
{
    private const HILBERT_BITS = 16;

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{triangles: list<int>, opposite: list<int>, duplicates: array<int, int>} anticlockwise triangles,
     *     three vertices each; opposite half-edge or -1 on the hull; points that coincide exactly with an earlier one
     *
     * @throws UnusableInput fewer than three points, or all on one line
     */
    public static function triangulate(array $x, array $y): array
    {
        $n = \count($x);
        if ($n < 3) {
            throw new UnusableInput('', \sprintf('a surface needs at least three points, there are %d', $n));
        }
        // Points are numbered anew as they are inserted: what is near in the plane is then near in memory.
        $order = self::insertionOrder($x, $y);
        $sortedX = $sortedY = [];
        foreach ($order as $i) {
            $sortedX[] = $x[$i];
            $sortedY[] = $y[$i];
        }
        $x = $sortedX;
        $y = $sortedY;
        unset($sortedX, $sortedY);

        // The first triangle: two different points and one off their line.
        $i0 = 0;
        $i1 = $i2 = -1;
        $at1 = $at2 = 0;
        for ($i = 1; $i < $n && $i2 < 0; ++$i) {
            if ($i1 < 0) {
                if ($x[$i] !== $x[$i0] || $y[$i] !== $y[$i0]) {
                    $i1 = $at1 = $i;
                }
            } else {
                $turn = Predicate::orient($x[$i0], $y[$i0], $x[$i1], $y[$i1], $x[$i], $y[$i]);
                if (0.0 !== $turn) {
                    $i2 = $at2 = $i;
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
        $twins = [];
        $stack = array_fill(0, 64, 0);
        $t = 0;
        $circleBound = Predicate::CIRCLE_BOUND;
        $coarseBound = 1.001 * $circleBound;
        // No product of two differences of coordinates is larger than the square of the extent.
        $extent = max(max($x) - min($x), max($y) - min($y));
        $flat = 2.0 * Predicate::ORIENT_BOUND * $extent * $extent;
        $ux = $uy = $vx = $vy = 0.0;
        $exactBelow = Predicate::EXACT_BELOW;

        for ($p = 1; $p < $n; ++$p) {
            if ($p === $at1 || $p === $at2) {
                continue;
            }
            $px = (float) $x[$p];
            $py = (float) $y[$p];

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
            $ax = $x[$a] - $px;
            $ay = $y[$a] - $py;
            $bx = $x[$b] - $px;
            $by = $y[$b] - $py;
            $cx = $x[$c] - $px;
            $cy = $y[$c] - $py;
            $zero = false;
            $cross = -1;
            $det = $ax * $by - $ay * $bx;
            if ($det <= $flat && $det >= -$flat) {
                $det = Predicate::orient($x[$a], $y[$a], $x[$b], $y[$b], $px, $py);
                $zero = 0.0 === $det;
            }
            if ($det < 0.0) {
                $cross = $h;
                $ux = $bx;
                $uy = $by;
                $vx = $ax;
                $vy = $ay;
            } else {
                $det = $bx * $cy - $by * $cx;
                if ($det <= $flat && $det >= -$flat) {
                    $det = Predicate::orient($x[$b], $y[$b], $x[$c], $y[$c], $px, $py);
                    $zero = $zero || 0.0 === $det;
                }
                if ($det < 0.0) {
                    $cross = $h + 1;
                    $ux = $cx;
                    $uy = $cy;
                    $vx = $bx;
                    $vy = $by;
                } else {
                    $det = $cx * $ay - $cy * $ax;
                    if ($det <= $flat && $det >= -$flat) {
                        $det = Predicate::orient($x[$c], $y[$c], $x[$a], $y[$a], $px, $py);
                        $zero = $zero || 0.0 === $det;
                    }
                    if ($det < 0.0) {
                        $cross = $h + 2;
                        $ux = $ax;
                        $uy = $ay;
                        $vx = $cx;
                        $vy = $cy;
                    }
                }
            }
            // Across the edge (u, v) to the triangle (u, v, w) behind it, of which w alone is new.
            while ($cross >= 0) {
                $entry = $opp[$cross];
                $em = $entry % 3;
                $h = $entry - $em;
                $toW = 2 === $em ? $h : $entry + 1;
                $fromW = 0 === $em ? $h + 2 : $entry - 1;
                $w = $tri[$fromW];
                $zero = false;
                if ($w === $ghost) {
                    break;
                }
                $wx = $x[$w] - $px;
                $wy = $y[$w] - $py;
                $det = $vx * $wy - $vy * $wx;
                if ($det <= $flat && $det >= -$flat) {
                    $v = $tri[$toW];
                    $det = Predicate::orient($x[$v], $y[$v], $x[$w], $y[$w], $px, $py);
                    $zero = 0.0 === $det;
                }
                if ($det < 0.0) {
                    $cross = $toW;
                    $ux = $wx;
                    $uy = $wy;
                    continue;
                }
                $det = $wx * $uy - $wy * $ux;
                if ($det <= $flat && $det >= -$flat) {
                    $u = $tri[$entry];
                    $det = Predicate::orient($x[$w], $y[$w], $x[$u], $y[$u], $px, $py);
                    $zero = $zero || 0.0 === $det;
                }
                if ($det >= 0.0) {
                    break;
                }
                $cross = $fromW;
                $vx = $wx;
                $vy = $wy;
            }
            $a = $tri[$h];
            $b = $tri[$h + 1];
            $c = $tri[$h + 2];
            $t = intdiv($h, 3);
            if ($zero) {
                $same = -1;
                foreach ([$a, $b, $c] as $v) {
                    if ($x[$v] === $px && $y[$v] === $py) {
                        $same = $v;
                    }
                }
                if ($same >= 0) {
                    // The one that was given first stands for both.
                    if ($order[$p] < $order[$same]) {
                        [$order[$p], $order[$same]] = [$order[$same], $order[$p]];
                    }
                    $twins[$p] = $same;
                    continue;
                }
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
                    // |b c| + |c b| is at most (bLift + cLift) / 2: a bound without absolute values, enough for nearly all.
                    $bound = $coarseBound * ($aLift * $bLift + $bLift * $cLift + $cLift * $aLift);
                    if ($det > $bound) {
                        $conflict = true;
                    } elseif (-$det > $bound) {
                        $conflict = false;
                    } else {
                        $permanent = (abs($bc) + abs($cb)) * $aLift + (abs($ca) + abs($ac)) * $bLift + (abs($ab) + abs($ba)) * $cLift;
                        if (abs($det) > $circleBound * $permanent
                            || $permanent < $exactBelow
                            && $ax === floor($ax)
                            && $ay === floor($ay)
                            && $bx === floor($bx)
                            && $by === floor($by)
                            && $cx === floor($cx)
                            && $cy === floor($cy)
                        ) {
                            $conflict = $det > 0.0;
                        } else {
                            $conflict = Predicate::inCircleExact($x[$pl], $y[$pl], $x[$pr], $y[$pr], $x[$q], $y[$q], $px, $py) > 0.0;
                        }
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

        $duplicates = [];
        foreach ($twins as $p => $same) {
            $duplicates[$order[$p]] = $order[$same];
        }

        return self::withoutGhosts($tri, $opp, $used, $ghost, $order) + ['duplicates' => $duplicates];
    }

    /**
     * @param list<int> $tri
     * @param list<int> $opp
     * @param list<int> $order numbers of the points as they were given
     *
     * @return array{triangles: list<int>, opposite: list<int>}
     */
    private static function withoutGhosts(array $tri, array $opp, int $used, int $ghost, array $order): array
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
                $triangles[$to] = $order[$tri[$h]];
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
    private static function insertionOrder(array $x, array $y): array
    {
        $minX = min($x);
        $minY = min($y);
        $extent = max(max($x) - $minX, max($y) - $minY);
        $n = \count($x);
        $scale = $extent > 0.0 ? ((1 << self::HILBERT_BITS) - 1) / $extent : 0.0;
        $curve = self::hilbertTable();
        $rounds = [];
        for ($i = 0; $i < $n; ++$i) {
            $u = (int) (($x[$i] - $minX) * $scale);
            $v = (int) (($y[$i] - $minY) * $scale);
            $k = $curve[(($u >> 8) & 0xF0) | ($v >> 12)];
            $d = $k & 0xFF;
            $k = $curve[($k & 0x300) | (($u >> 4) & 0xF0) | (($v >> 8) & 0xF)];
            $d = ($d << 8) | ($k & 0xFF);
            $k = $curve[($k & 0x300) | ($u & 0xF0) | (($v >> 4) & 0xF)];
            $d = ($d << 8) | ($k & 0xFF);
            $d = ($d << 8) | ($curve[($k & 0x300) | (($u << 4) & 0xF0) | ($v & 0xF)] & 0xFF);
            // One point in eight goes a round earlier, one in 64 two: by a mixed bit pattern of its number, not by chance.
            $hash = ($i * 2654435761) & 0xFFFFFFFF;
            $hash ^= $hash >> 15;
            $hash = (($hash & 0x7FFFFFFF) * 2246822519) & 0xFFFFFFFF;
            $hash ^= $hash >> 13;
            $round = 0 !== ($hash & 7) ? 0 : (0 !== ($hash & 56) ? 1 : (0 !== ($hash & 448) ? 2 : 3));
            $rounds[$round][] = ($d << 30) | $i;
        }
        krsort($rounds);
        $keys = [];
        foreach ($rounds as $round => $list) {
            sort($list, \SORT_NUMERIC);
            // A round ends where the next begins.
            foreach (1 === $round % 2 ? array_reverse($list) : $list as $key) {
                $keys[] = $key & 0x3FFFFFFF;
            }
        }

        return $keys;
    }

    /**
     * The curve in steps of four bits: by orientation (two bits), four bits of x and four of y, the next orientation and
     * eight bits of the place along the curve.
     *
     * @return list<int>
     */
    private static function hilbertTable(): array
    {
        $table = [];
        for ($key = 0; $key < 1024; ++$key) {
            $swapped = $key >> 8 & 1;
            $inverted = $key >> 9 & 1;
            $d = 0;
            for ($bit = 3; $bit >= 0; --$bit) {
                $u = ($key >> 4 + $bit & 1) ^ $inverted;
                $v = ($key >> $bit & 1) ^ $inverted;
                if (1 === $swapped) {
                    [$u, $v] = [$v, $u];
                }
                $d = $d << 2 | (3 * $u) ^ $v;
                if (0 === $v) {
                    $inverted ^= $u;
                    $swapped ^= 1;
                }
            }
            $table[] = $inverted << 9 | $swapped << 8 | $d;
        }

        return $table;
    }
}
