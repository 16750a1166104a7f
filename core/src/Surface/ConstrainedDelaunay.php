<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * Constrained Delaunay triangulation: a Delaunay triangulation into which edges are forced by flips
 * (Sloan 1993, "A fast algorithm for generating constrained Delaunay triangulations", Computers and Structures 47).
 * Vertices lying exactly on a segment split it.
 */
final class ConstrainedDelaunay
{
    /** @var list<int> */
    private array $tri;

    /** @var list<int> */
    private array $opp;

    /** @var array<int, int> a half-edge leaving each vertex */
    private array $leaving = [];

    /** @var array<string, true> */
    private array $constraints = [];

    /** @var array<int, int> */
    private array $duplicates;

    /**
     * @param list<float> $x
     * @param list<float> $y
     */
    public function __construct(private readonly array $x, private readonly array $y)
    {
        ['triangles' => $this->tri, 'opposite' => $this->opp, 'duplicates' => $this->duplicates] = Delaunay::triangulate($x, $y);
        foreach ($this->tri as $h => $v) {
            $this->leaving[$v] = $h;
        }
    }

    /** @return array{triangles: list<int>, opposite: list<int>, constraints: array<string, true>, duplicates: array<int, int>} */
    public function result(): array
    {
        return [
            'triangles' => $this->tri, 'opposite' => $this->opp, 'constraints' => $this->constraints,
            'duplicates' => $this->duplicates,
        ];
    }

    public function insert(int $u, int $v): void
    {
        $u = $this->duplicates[$u] ?? $u;
        $v = $this->duplicates[$v] ?? $v;
        while ($u !== $v) {
            $u = $this->insertUpTo($u, $v);
        }
    }

    private static function next(int $h): int
    {
        return 2 === $h % 3 ? $h - 2 : $h + 1;
    }

    private static function previous(int $h): int
    {
        return 0 === $h % 3 ? $h + 2 : $h - 1;
    }

    private static function key(int $u, int $v): string
    {
        return $u < $v ? "$u $v" : "$v $u";
    }

    private function side(int $a, int $b, int $c): float
    {
        return Predicate::orient($this->x[$a], $this->y[$a], $this->x[$b], $this->y[$b], $this->x[$c], $this->y[$c]);
    }

    /** Forces the edge from $u towards $v as far as the first vertex on it; returns that vertex. */
    private function insertUpTo(int $u, int $v): int
    {
        // Turn about u: the edge is there, or a vertex lies on it, or it leaves through an opposite edge.
        $start = $this->leaving[$u];
        $h = $start;
        $crossing = -1;
        $clockwise = false;
        while (true) {
            $a = $this->tri[self::next($h)];
            $b = $this->tri[self::previous($h)];
            foreach ([$a, $b] as $w) {
                if ($w === $v || 0.0 === $this->side($u, $v, $w) && $this->ahead($u, $v, $w)) {
                    $this->constraints[self::key($u, $w)] = true;

                    return $w;
                }
            }
            if ($this->side($u, $v, $a) < 0.0 && $this->side($u, $v, $b) > 0.0) {
                $crossing = self::next($h);
                break;
            }
            if (!$clockwise) {
                $o = $this->opp[self::previous($h)];
                if ($o < 0) {
                    $clockwise = true;
                    $h = $start;
                }
            }
            if ($clockwise) {
                $o = $this->opp[$h];
                $o = $o < 0 ? -1 : self::next($o);
            }
            if ($o < 0 || $o === $start) {
                throw new \LogicException(\sprintf('No way from vertex %d towards %d.', $u, $v));
            }
            $h = $o;
        }

        // Collect the edges crossed up to v or to a vertex on the way.
        $crossed = [];
        $h = $crossing;
        while (true) {
            $a = $this->tri[$h];
            $b = $this->tri[self::next($h)];
            if (isset($this->constraints[self::key($a, $b)])) {
                throw new UnusableInput('', \sprintf('two lines cross near %.3f, %.3f without a common point', $this->x[$a], $this->y[$a]));
            }
            $crossed[] = [$a, $b];
            $o = $this->opp[$h];
            $w = $this->tri[self::previous($o)];
            if ($w === $v) {
                break;
            }
            $side = $this->side($u, $v, $w);
            if (0.0 === $side) {
                $v = $w;
                break;
            }
            // The next edge is the one of the new triangle whose ends lie on different sides.
            $h = $side > 0.0 ? self::next($o) : self::previous($o);
        }

        $created = [];
        while ([] !== $crossed) {
            [$a, $b] = array_shift($crossed);
            $h = $this->edge($a, $b);
            $p = $this->tri[self::previous($h)];
            $q = $this->tri[self::previous($this->opp[$h])];
            if (!($this->side($p, $a, $q) > 0.0 && $this->side($q, $b, $p) > 0.0)) {
                $crossed[] = [$a, $b]; // not strictly convex: later
                continue;
            }
            $this->flip($h);
            $sp = $this->side($u, $v, $p);
            $sq = $this->side($u, $v, $q);
            if ($sp > 0.0 && $sq < 0.0 || $sp < 0.0 && $sq > 0.0) {
                $crossed[] = [$p, $q];
            } else {
                $created[] = [$p, $q];
            }
        }
        $this->constraints[self::key($u, $v)] = true;

        // What was made on the way becomes Delaunay again, but for the constraints.
        do {
            $changed = false;
            foreach ($created as $k => [$a, $b]) {
                if (isset($this->constraints[self::key($a, $b)])) {
                    continue;
                }
                $h = $this->edge($a, $b);
                $o = $this->opp[$h];
                if ($o < 0) {
                    continue;
                }
                $p = $this->tri[self::previous($h)];
                $q = $this->tri[self::previous($o)];
                $inside = Predicate::inCircle(
                    $this->x[$a], $this->y[$a], $this->x[$b], $this->y[$b], $this->x[$p], $this->y[$p], $this->x[$q],
                    $this->y[$q],
                );
                if ($inside > 0.0) {
                    $this->flip($h);
                    $created[$k] = [$p, $q];
                    $changed = true;
                }
            }
        } while ($changed);

        return $v;
    }

    private function ahead(int $u, int $v, int $w): bool
    {
        $dx = $this->x[$v] - $this->x[$u];
        $dy = $this->y[$v] - $this->y[$u];
        $along = ($this->x[$w] - $this->x[$u]) * $dx + ($this->y[$w] - $this->y[$u]) * $dy;

        return $along > 0.0 && $along < $dx * $dx + $dy * $dy;
    }

    /** The half-edge from $a to $b. */
    private function edge(int $a, int $b): int
    {
        $start = $this->leaving[$a];
        $h = $start;
        do {
            if ($this->tri[self::next($h)] === $b) {
                return $h;
            }
            $h = $this->opp[self::previous($h)];
        } while ($h >= 0 && $h !== $start);
        // The other way round, for vertices on the hull.
        $h = $start;
        do {
            $o = $this->opp[$h];
            if ($o < 0) {
                break;
            }
            $h = self::next($o);
            if ($this->tri[self::next($h)] === $b) {
                return $h;
            }
        } while ($h !== $start);
        throw new \LogicException(\sprintf('There is no edge from vertex %d to %d.', $a, $b));
    }

    private function flip(int $a): void
    {
        $b = $this->opp[$a];
        $al = self::next($a);
        $ar = self::previous($a);
        $bl = self::previous($b);
        $p = $this->tri[$ar];
        $q = $this->tri[$bl];
        $oa = $this->opp[$bl];
        $ob = $this->opp[$ar];
        $this->tri[$a] = $q;
        $this->tri[$b] = $p;
        $this->opp[$a] = $oa;
        if ($oa >= 0) {
            $this->opp[$oa] = $a;
        }
        $this->opp[$b] = $ob;
        if ($ob >= 0) {
            $this->opp[$ob] = $b;
        }
        $this->opp[$ar] = $bl;
        $this->opp[$bl] = $ar;
        $br = self::next($b);
        foreach ([$a, $al, $ar, $b, $br, $bl] as $h) {
            $this->leaving[$this->tri[$h]] = $h;
        }
    }
}
