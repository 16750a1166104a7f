<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;

/**
 * Builds a surface from points and lines: merge what coincides, constrain along breaklines, cut along boundaries and voids.
 *
 * Coordinates are brought to whole multiples of their own last decimal (down to a micrometre) from a corner of the
 * data, so that the exact predicates see what was written in the file rather than its binary neighbour.
 */
final class SurfaceBuilder
{
    /** Points closer than this in plan are one vertex, metres. */
    private const SAME_PLACE = 1e-4;

    /** Heights of one place that differ by more are reported, metres. */
    private const SAME_HEIGHT = 1e-3;

    private const MOST_DECIMALS = 6;

    /** @var list<string> what was decided about points */
    public array $warnings = [];

    /** @var list<string> what was decided about lines, each beginning with the name of one */
    public array $lineWarnings = [];

    /** @var list<float> */
    private array $x;

    /** @var list<float> */
    private array $y;

    /** @var list<float> */
    private array $z;

    /** @var list<string> */
    private array $names;

    /** @var list<SurfaceLine> with the islands of voids as lines of their own */
    private readonly array $lines;

    /** @var list<SurfaceLine> boundaries and voids */
    private readonly array $rings;

    /** @var list<array{int, int, string}> vertex numbers of forced edges and the line they come from */
    private array $forced = [];

    /**
     * @param list<float>       $x
     * @param list<float>       $y
     * @param list<float>       $z
     * @param list<string>      $names for messages
     * @param list<SurfaceLine> $lines
     */
    public function __construct(
        array $x,
        array $y,
        array $z,
        array $names,
        array $lines = [],
        private readonly bool $meanAtCrossings = false,
    ) {
        $this->rings = array_values(array_filter($lines, static fn (SurfaceLine $l): bool => $l->isClosed()));
        $this->lines = SurfaceLine::flat($lines);
        $this->x = $x;
        $this->y = $y;
        $this->z = $z;
        $this->names = $names;
    }

    /** @throws UnusableInput */
    public function build(?float $maxEdge = null): Tin
    {
        $this->refuseSelfCrossing();
        $needsHeights = false;
        foreach ($this->lines as $line) {
            foreach ($line->vertices as $vertex) {
                $needsHeights = $needsHeights || null === $vertex[2] && SurfaceLine::BREAKLINE === $line->role;
            }
        }
        $tin = $this->triangulate();
        $this->takeUpLines($needsHeights ? new Locator($tin) : null);
        if ([] !== $this->forced) {
            $tin = $this->triangulate();
        }
        if ([] !== $this->rings) {
            $tin = $this->cut($tin);
        }
        if (null !== $maxEdge) {
            $tin = self::withoutLongEdges($tin, $maxEdge);
        }
        if (0 === $tin->triangleCount()) {
            throw new UnusableInput('', \sprintf('no triangle is left: every one has an edge longer than %s m', json_encode($maxEdge)));
        }

        return $tin;
    }

    private function cut(Tin $tin): Tin
    {
        $cut = new SurfaceCut($tin, $this->rings);
        $left = $cut->cut();
        $idle = $cut->idle();
        if (0 === $left->triangleCount()) {
            throw new UnusableInput($this->rings[0]->name, [] === $idle ? 'leaves nothing of the surface: what the '
                .'boundaries keep, the voids take away' : \sprintf(
                    'leaves nothing of the surface: no part of it lies inside %s; are its coordinates in the system of the points?',
                    implode(' or ', $idle),
                ));
        }
        foreach ($idle as $name) {
            $this->lineWarnings[] = $name.' lies wholly outside the surface and changes nothing';
        }

        return $left;
    }

    private function triangulate(): Tin
    {
        if (\count($this->x) < 3) {
            throw new UnusableInput('', \sprintf('a surface needs at least three points, there are %d', \count($this->x)));
        }
        for ($round = 0;; ++$round) {
            $plane = self::scaled($this->x, $this->y);
            if ([] === $this->forced) {
                $result = Delaunay::triangulate($plane[0], $plane[1]) + ['constraints' => []];
            } else {
                $constrained = new ConstrainedDelaunay($plane[0], $plane[1]);
                foreach ($this->forced as [$u, $v, $line]) {
                    try {
                        $constrained->insert($u, $v);
                    } catch (UnusableInput $e) {
                        throw new UnusableInput($line, $e->reason);
                    }
                }
                $result = $constrained->result();
            }
            if (!$this->merge($result['duplicates'], $result['triangles']) || $round > 3) {
                break;
            }
        }

        return new Tin($this->x, $this->y, $this->z, $result['triangles'], $result['opposite'], $result['constraints']);
    }

    /**
     * Brings points that are one place to one vertex.
     *
     * @param array<int, int> $duplicates exactly coinciding points
     * @param list<int>       $triangles
     *
     * @return bool true when near points were merged and the triangulation must be made again
     */
    private function merge(array $duplicates, array $triangles): bool
    {
        $x = $this->x;
        $y = $this->y;
        $near = [];
        // What is written 0.1 mm apart differs by a few last bits less in binary.
        $limit = self::SAME_PLACE - 4.0 * \PHP_FLOAT_EPSILON * max(max($x), -min($x), max($y), -min($y));
        for ($h = 0, $n = \count($triangles); $h < $n; $h += 3) {
            $b = $triangles[$h + 2];
            $bx = $x[$b];
            for ($k = $h; $k < $h + 3; ++$k) {
                $a = $b;
                $ax = $bx;
                $b = $triangles[$k];
                $bx = $x[$b];
                $dx = $ax - $bx;
                if ($dx < $limit && $dx > -$limit) {
                    $dy = $y[$a] - $y[$b];
                    if ($dx * $dx + $dy * $dy < $limit * $limit) {
                        $near[max($a, $b)] = min($a, $b);
                    }
                }
            }
        }
        $groups = [];
        foreach ([$duplicates, $near] as $pairs) {
            foreach ($pairs as $p => $q) {
                while (isset($near[$q])) {
                    $q = $near[$q];
                }
                $groups[$q][$p] = true;
            }
        }
        foreach ($groups as $q => $members) {
            $heights = [$this->z[$q]];
            foreach (array_keys($members) as $p) {
                $heights[] = $this->z[$p];
            }
            if (max($heights) - min($heights) > self::SAME_HEIGHT) {
                $names = array_map(fn (int $p): string => $this->names[$p] ?? 'a line vertex', [$q, ...array_keys($members)]);
                $mean = array_sum($heights) / \count($heights);
                $this->warnings[] = \sprintf(
                    '%s lie at one place with heights %.3f to %.3f m; their mean %.3f is used',
                    implode(', ', \array_slice($names, 0, 6)), min($heights), max($heights), $mean,
                );
                $this->z[$q] = $mean;
            }
            foreach (array_keys($members) as $p) {
                $this->x[$p] = $this->x[$q];
                $this->y[$p] = $this->y[$q];
                $this->z[$p] = $this->z[$q];
            }
        }

        return [] !== $near;
    }

    /** Line vertices become vertices of the surface; crossings of lines become vertices of both. */
    private function takeUpLines(?Locator $pointsOnly): void
    {
        $segments = $ends = $owner = [];
        foreach ($this->lines as $line) {
            $numbers = [];
            $complete = true;
            foreach ($line->vertices as $k => [$px, $py, $pz]) {
                if (null === $pz && SurfaceLine::BREAKLINE !== $line->role) {
                    $complete = false; // a ring without heights only cuts
                    break;
                }
                if (null === $pz) {
                    $pz = $pointsOnly?->height($px, $py);
                    if (null === $pz) {
                        throw new UnusableInput($line->name, \sprintf(
                            'vertex %d (%.3f, %.3f) has no height and lies outside the points, so none can be read off '
                                .'their surface; give it a height',
                            $k + 1,
                            $px,
                            $py,
                        ));
                    }
                }
                $numbers[$k] = \count($this->x);
                $this->x[] = $px;
                $this->y[] = $py;
                $this->z[] = $pz;
                $this->names[] = $line->name;
            }
            if (!$complete) {
                continue;
            }
            foreach ($line->segments() as [$a, $b]) {
                [$ax, $ay] = $line->vertices[$a];
                [$bx, $by] = $line->vertices[$b];
                $segments[] = [$ax, $ay, $bx, $by];
                $ends[] = [$numbers[$a], $numbers[$b]];
                $owner[] = $line;
            }
        }
        /** @var array<int, array<int, float>> $stops vertices on each segment by their fraction along it */
        $stops = [];
        foreach (SegmentIndex::pairs($segments) as [$i, $j]) {
            $meeting = SegmentIndex::meeting($segments[$i], $segments[$j]);
            if (null === $meeting) {
                continue;
            }
            [$s, $t] = $meeting;
            $zi = $this->z[$ends[$i][0]] + $s * ($this->z[$ends[$i][1]] - $this->z[$ends[$i][0]]);
            $zj = $this->z[$ends[$j][0]] + $t * ($this->z[$ends[$j][1]] - $this->z[$ends[$j][0]]);
            $px = $segments[$i][0] + $s * ($segments[$i][2] - $segments[$i][0]);
            $py = $segments[$i][1] + $s * ($segments[$i][3] - $segments[$i][1]);
            $away = static fn (float $f, array $g): float => min($f, 1.0 - $f) * hypot($g[2] - $g[0], $g[3] - $g[1]);
            $atEndOfI = $away($s, $segments[$i]) < self::SAME_PLACE;
            $atEndOfJ = $away($t, $segments[$j]) < self::SAME_PLACE;
            if (abs($zi - $zj) > self::SAME_HEIGHT && $owner[$i]->isClosed() && $owner[$j]->isClosed()) {
                $this->lineWarnings[] = \sprintf(
                    '%s and %s cross at %.3f, %.3f with heights %.3f and %.3f m; their mean is used',
                    $owner[$i]->name, $owner[$j]->name, $px, $py, $zi, $zj,
                );
            } elseif (abs($zi - $zj) > self::SAME_HEIGHT && $this->meanAtCrossings) {
                $this->lineWarnings[] = \sprintf(
                    '%s crosses %s at %.3f, %.3f with heights %.3f and %.3f m; their mean is used, as chosen',
                    $owner[$i]->name, $owner[$i] === $owner[$j] ? 'itself' : $owner[$j]->name, $px, $py, $zi, $zj,
                );
            } elseif (abs($zi - $zj) > self::SAME_HEIGHT) {
                throw new UnusableInput($owner[$i]->name, \sprintf(
                    'crosses %s at %.3f, %.3f with heights %.3f and %.3f m; correct one of them or accept the mean (--crossing mean)',
                    $owner[$i] === $owner[$j] ? 'itself' : $owner[$j]->name, $px, $py, $zi, $zj,
                ));
            }
            if ($atEndOfI && $atEndOfJ) {
                if (abs($zi - $zj) > self::SAME_HEIGHT) {
                    $mean = 0.5 * ($zi + $zj);
                    $this->z[$ends[$i][$s < 0.5 ? 0 : 1]] = $this->z[$ends[$j][$t < 0.5 ? 0 : 1]] = $mean;
                }
                continue;
            }
            if ($atEndOfI) {
                $vertex = $ends[$i][$s < 0.5 ? 0 : 1];
                $this->z[$vertex] = 0.5 * ($zi + $zj);
                $stops[$j][$vertex] = $t;
            } elseif ($atEndOfJ) {
                $vertex = $ends[$j][$t < 0.5 ? 0 : 1];
                $this->z[$vertex] = 0.5 * ($zi + $zj);
                $stops[$i][$vertex] = $s;
            } else {
                $vertex = \count($this->x);
                $this->x[] = round($px, self::MOST_DECIMALS);
                $this->y[] = round($py, self::MOST_DECIMALS);
                $this->z[] = 0.5 * ($zi + $zj);
                $this->names[] = $owner[$i]->name;
                $stops[$i][$vertex] = $s;
                $stops[$j][$vertex] = $t;
            }
        }
        foreach ($ends as $i => [$u, $v]) {
            $along = $stops[$i] ?? [];
            asort($along);
            foreach ([...array_keys($along), $v] as $w) {
                $this->forced[] = [$u, $w, $owner[$i]->name];
                $u = $w;
            }
        }
    }

    private function refuseSelfCrossing(): void
    {
        foreach ($this->lines as $line) {
            if (!$line->isClosed()) {
                if (\count($line->vertices) < 2) {
                    throw new UnusableInput($line->name, 'a breakline needs at least two vertices');
                }
                continue;
            }
            $line->refuseUnusableRing();
        }
    }

    private static function withoutLongEdges(Tin $tin, float $maxEdge): Tin
    {
        $keep = [];
        $t = $tin->triangles;
        for ($h = 0, $n = \count($t); $h < $n; $h += 3) {
            $longest = 0.0;
            for ($k = 0; $k < 3; ++$k) {
                $a = $t[$h + $k];
                $b = $t[$h + ($k + 1) % 3];
                $longest = max($longest, hypot($tin->x[$b] - $tin->x[$a], $tin->y[$b] - $tin->y[$a]));
            }
            $keep[] = $longest <= $maxEdge;
        }

        return $tin->only($keep);
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{list<float>, list<float>}
     */
    public static function scaled(array $x, array $y): array
    {
        $factor = 1.0;
        $decimals = 0;
        foreach ([$x, $y] as $values) {
            // A decimal in binary is off by its last bit at most, and its multiple by one more.
            $bits = 2.0 * \PHP_FLOAT_EPSILON * max(max($values), -min($values));
            $off = $bits * $factor;
            foreach ($values as $value) {
                $scaled = $value * $factor;
                $rest = $scaled - floor($scaled + 0.5);
                while ($rest > $off || $rest < -$off) {
                    if (++$decimals > self::MOST_DECIMALS) {
                        break 3;
                    }
                    $factor *= 10.0;
                    $off = $bits * $factor;
                    $scaled = $value * $factor;
                    $rest = $scaled - floor($scaled + 0.5);
                }
            }
        }
        $out = [];
        foreach ([$x, $y] as $values) {
            $low = min($values);
            if ($decimals <= self::MOST_DECIMALS) {
                $origin = floor($low * $factor + 0.5);
                foreach ($values as $i => $value) {
                    $values[$i] = floor($value * $factor + 0.5) - $origin;
                }
            } else {
                foreach ($values as $i => $value) {
                    $values[$i] = $value - $low;
                }
            }
            $out[] = $values;
        }

        return $out;
    }
}
