<?php

declare(strict_types=1);

namespace Mensura\Surface;

/**
 * Cuts a surface along rings without changing it: every triangle a ring touches is divided along the ring in its own
 * plane, then what lies outside the boundaries or inside a void is left out.
 */
final class SurfaceCut
{
    /** A corner this near a vertex is that vertex, metres. */
    private const SNAP = 1e-4;

    /** @var list<float> */
    private array $x;

    /** @var list<float> */
    private array $y;

    /** @var list<float> */
    private array $z;

    /** @var array<string, array<int, float>> per edge "low high": vertices on it by their fraction from low */
    private array $onEdge = [];

    /** @var array<int, true> first half-edges of triangles a ring touches */
    private array $touched = [];

    /** @var array<int, true> rings that hold a part of the surface, by index */
    private array $holding = [];

    /** @param list<SurfaceLine> $rings */
    public function __construct(private readonly Tin $tin, private readonly array $rings)
    {
        $this->x = $tin->x;
        $this->y = $tin->y;
        $this->z = $tin->z;
    }

    public function cut(): Tin
    {
        $locator = new Locator($this->tin);
        $pieces = $this->pieces($locator);

        // All edges of the touched triangles stay where they are, split where the rings cross them.
        $plane = SurfaceBuilder::scaled($this->x, $this->y);
        $constrained = new ConstrainedDelaunay($plane[0], $plane[1]);
        foreach (array_keys($this->tin->constraints) as $key) {
            [$u, $v] = array_map(intval(...), explode(' ', $key));
            $this->force($constrained, $u, $v);
        }
        // The surface's own outer edge and holes are kept too: the new triangulation covers the whole hull.
        foreach ($this->tin->triangles as $h => $u) {
            if (isset($this->touched[$h - $h % 3]) || $this->tin->opposite[$h] < 0) {
                $this->force($constrained, $u, $this->tin->triangles[2 === $h % 3 ? $h - 2 : $h + 1]);
            }
        }
        $inside = new Locator($this->tin);
        foreach ($pieces as [$u, $v]) {
            if (null !== $inside->triangle(0.5 * ($this->x[$u] + $this->x[$v]), 0.5 * ($this->y[$u] + $this->y[$v]))) {
                $constrained->insert($u, $v);
            }
        }
        $result = $constrained->result();
        $tin = new Tin($this->x, $this->y, $this->z, $result['triangles'], $result['opposite'], $result['constraints']);

        return $tin->only($this->wanted($tin, $inside));
    }

    /** @return list<string> names of rings that hold no part of the surface: boundaries that keep nothing, voids that take nothing */
    public function idle(): array
    {
        return array_values(array_map(static fn (SurfaceLine $ring): string => $ring->name, array_diff_key($this->rings, $this->holding)));
    }

    /** @return list<array{int, int}> the rings in pieces between vertices: corners, crossings with edges and with each other */
    private function pieces(Locator $locator): array
    {
        $segments = $ends = $spans = [];
        foreach (SurfaceLine::flat($this->rings) as $ring) {
            $numbers = array_map(fn (array $v): ?int => $this->ringVertex($locator, $v[0], $v[1]), $ring->vertices);
            foreach ($ring->segments() as [$a, $b]) {
                $spans[] = [$ring->vertices[$a], $ring->vertices[$b]];
                $segments[] = [$ring->vertices[$a][0], $ring->vertices[$a][1], $ring->vertices[$b][0], $ring->vertices[$b][1]];
                $ends[] = [$numbers[$a], $numbers[$b]];
            }
        }
        $stops = array_map(fn (array $span): array => $this->crossings($locator, $span[0], $span[1]), $spans);
        foreach ($ends as $i => [$a, $b]) {
            foreach ([[$a, 0.0], [$b, 1.0]] as [$vertex, $fraction]) {
                if (null !== $vertex) {
                    $stops[$i][$vertex] = $fraction;
                }
            }
        }
        foreach (SegmentIndex::pairs($segments) as [$i, $j]) {
            $meeting = SegmentIndex::meeting($segments[$i], $segments[$j]);
            if (null === $meeting) {
                continue;
            }
            $vertex = null;
            foreach ([[$i, $meeting[0]], [$j, $meeting[1]]] as [$k, $f]) {
                $length = hypot($segments[$k][2] - $segments[$k][0], $segments[$k][3] - $segments[$k][1]);
                if (min($f, 1.0 - $f) * $length < self::SNAP) {
                    $vertex = $ends[$k][$f < 0.5 ? 0 : 1] ?? $vertex;
                }
            }
            $vertex ??= $this->ringVertex(
                $locator, $segments[$i][0] + $meeting[0] * ($segments[$i][2] - $segments[$i][0]),
                $segments[$i][1] + $meeting[0] * ($segments[$i][3] - $segments[$i][1]),
            );
            if (null !== $vertex) {
                $stops[$i][$vertex] ??= $meeting[0];
                $stops[$j][$vertex] ??= $meeting[1];
            }
        }
        $pieces = [];
        foreach ($stops as $along) {
            asort($along);
            $previous = null;
            foreach (array_keys($along) as $vertex) {
                if (null !== $previous) {
                    $pieces[] = [$previous, $vertex];
                }
                $previous = $vertex;
            }
        }

        return $pieces;
    }

    /**
     * A vertex at a ring's corner: an existing one at the same place, or a new one in the plane of its triangle; null
     * outside the surface.
     */
    private function ringVertex(Locator $locator, float $px, float $py): ?int
    {
        $h = $locator->triangle($px, $py);
        if (null === $h) {
            return null;
        }
        $this->touched[$h] = true;
        for ($k = 0; $k < 3; ++$k) {
            $v = $this->tin->triangles[$h + $k];
            if (hypot($this->x[$v] - $px, $this->y[$v] - $py) < self::SNAP) {
                return $v;
            }
        }
        $z = $locator->heightIn($h, $px, $py);
        for ($k = 0; $k < 3; ++$k) {
            $u = $this->tin->triangles[$h + $k];
            $v = $this->tin->triangles[$h + ($k + 1) % 3];
            $length = hypot($this->x[$v] - $this->x[$u], $this->y[$v] - $this->y[$u]);
            $off = abs(
                ($this->x[$v] - $this->x[$u]) * ($py - $this->y[$u]) - ($this->y[$v] - $this->y[$u]) * ($px - $this->x[$u]),
            ) / $length;
            if ($off < 1e-6) {
                $f = hypot($px - $this->x[$u], $py - $this->y[$u]) / $length;

                return $this->edgeVertex($h + $k, $u, $v, $f);
            }
        }
        $this->x[] = round($px, 6);
        $this->y[] = round($py, 6);
        $this->z[] = $z;

        return \count($this->x) - 1;
    }

    private function edgeVertex(int $h, int $u, int $v, float $f): int
    {
        $this->touched[$h - $h % 3] = true;
        $o = $this->tin->opposite[$h];
        if ($o >= 0) {
            $this->touched[$o - $o % 3] = true;
        }
        if ($u > $v) {
            [$u, $v, $f] = [$v, $u, 1.0 - $f];
        }
        $length = hypot($this->x[$v] - $this->x[$u], $this->y[$v] - $this->y[$u]);
        foreach ($this->onEdge["$u $v"] ?? [] as $vertex => $g) {
            if (abs($g - $f) * $length < 1e-6) {
                return $vertex;
            }
        }
        $vertex = \count($this->x);
        $this->x[] = round($this->x[$u] + $f * ($this->x[$v] - $this->x[$u]), 6);
        $this->y[] = round($this->y[$u] + $f * ($this->y[$v] - $this->y[$u]), 6);
        $this->z[] = $this->z[$u] + $f * ($this->z[$v] - $this->z[$u]);
        $this->onEdge["$u $v"][$vertex] = $f;

        return $vertex;
    }

    /**
     * @param array{float, float, ?float} $a
     * @param array{float, float, ?float} $b
     *
     * @return array<int, float> vertices where the segment crosses edges or passes through vertices, by fraction
     */
    private function crossings(Locator $locator, array $a, array $b): array
    {
        $stops = [];
        $length2 = ($b[0] - $a[0]) ** 2 + ($b[1] - $a[1]) ** 2;
        $t = $this->tin->triangles;
        foreach ($locator->near(min($a[0], $b[0]), min($a[1], $b[1]), max($a[0], $b[0]), max($a[1], $b[1])) as $first) {
            for ($h = $first; $h < $first + 3; ++$h) {
                $u = $t[$h];
                $v = $t[2 === $h % 3 ? $h - 2 : $h + 1];
                $meeting = SegmentIndex::meeting(
                    [$a[0], $a[1], $b[0], $b[1]],
                    [$this->tin->x[$u], $this->tin->y[$u], $this->tin->x[$v], $this->tin->y[$v]],
                );
                if (null === $meeting) {
                    continue;
                }
                [$s, $f] = $meeting;
                $edge = hypot($this->tin->x[$v] - $this->tin->x[$u], $this->tin->y[$v] - $this->tin->y[$u]);
                $vertex = $f * $edge < self::SNAP ? $u : ((1.0 - $f) * $edge < self::SNAP ? $v : null);
                if (null !== $vertex) {
                    $this->touched[$first] = true;
                    $s = (($this->tin->x[$vertex] - $a[0]) * ($b[0] - $a[0])
                        + ($this->tin->y[$vertex] - $a[1]) * ($b[1] - $a[1])) / $length2;
                } elseif (min($s, 1.0 - $s) ** 2 * $length2 < 1e-12) {
                    continue; // the ring's own corner on the edge, already a vertex
                } else {
                    $vertex = $this->edgeVertex($h, $u, $v, $f);
                }
                $stops[$vertex] = $s;
            }
        }

        return $stops;
    }

    private function force(ConstrainedDelaunay $constrained, int $u, int $v): void
    {
        if ($u > $v) {
            [$u, $v] = [$v, $u];
        }
        $along = $this->onEdge["$u $v"] ?? [];
        asort($along);
        foreach ([...array_keys($along), $v] as $w) {
            $constrained->insert($u, $w);
            $u = $w;
        }
    }

    /** @return list<bool> */
    private function wanted(Tin $tin, Locator $original): array
    {
        $boundaries = array_filter($this->rings, static fn (SurfaceLine $r): bool => SurfaceLine::BOUNDARY === $r->role);
        $voids = array_filter($this->rings, static fn (SurfaceLine $r): bool => SurfaceLine::VOID === $r->role);
        $keep = [];
        for ($h = 0, $n = \count($tin->triangles); $h < $n; $h += 3) {
            $cx = ($tin->x[$tin->triangles[$h]] + $tin->x[$tin->triangles[$h + 1]] + $tin->x[$tin->triangles[$h + 2]]) / 3.0;
            $cy = ($tin->y[$tin->triangles[$h]] + $tin->y[$tin->triangles[$h + 1]] + $tin->y[$tin->triangles[$h + 2]]) / 3.0;
            $kept = null !== $original->triangle($cx, $cy);
            if ($kept) {
                $inBoundary = [] === $boundaries;
                foreach ($boundaries as $i => $ring) {
                    if ($ring->contains($cx, $cy)) {
                        $inBoundary = $this->holding[$i] = true;
                    }
                }
                foreach ($voids as $i => $ring) {
                    if ($ring->contains($cx, $cy)) {
                        $this->holding[$i] = true;
                        $kept = false;
                    }
                }
                $kept = $kept && $inBoundary;
            }
            $keep[] = $kept;
        }

        return $keep;
    }
}
