<?php

declare(strict_types=1);

namespace Mensura\Section;

use Mensura\Surface\Locator;
use Mensura\Surface\Tin;

/**
 * A surface cut along a line: a vertex wherever the line crosses an edge or bends, a piece for every stretch that the surface
 * covers. Edges of the border belong to the surface. Stations and heights in metres.
 */
final class SurfaceSection
{
    /** Metres from an edge at which a line runs along it. */
    private const ON = 1e-8;

    /** A gap shorter than this is none, metres. */
    private const GAP = 1e-7;

    /** Lengths of the line that are looked for at a time, as a part of the extent. */
    private const PARTS = 64;

    private readonly Locator $locator;
    private readonly float $reach;

    public function __construct(private readonly Tin $tin)
    {
        $this->locator = new Locator($tin);
        $this->reach = max((max($tin->x) - min($tin->x) + max($tin->y) - min($tin->y)) / self::PARTS, 1.0);
    }

    /** @return list<list<array{float, float}>> station and height of the vertices of each piece */
    public function along(SectionLine $line): array
    {
        $pieces = [];
        $piece = [];
        for ($i = 1, $n = \count($line->x); $i < $n; ++$i) {
            $begin = $line->stations[$i - 1];
            foreach ($this->spans($line, $i) as [$from, $to, $hFrom, $hTo]) {
                $last = [] === $piece ? null : $piece[\count($piece) - 1];
                if (null === $last || $begin + $from > $last[0] + self::GAP) {
                    if ([] !== $piece) {
                        $pieces[] = $piece;
                    }
                    $piece = [[$begin + $from, $hFrom]];
                } elseif (abs($last[1] - $hFrom) > 1e-6) {
                    $piece[] = [$begin + $from, $hFrom]; // two faces that meet in plan at different heights
                }
                $piece[] = [$begin + $to, $hTo];
            }
        }

        return [] === $piece ? $pieces : [...$pieces, $piece];
    }

    /**
     * What triangles cover of a segment, in the order of the way, none twice.
     *
     * @return list<array{float, float, float, float}> from, to, height there and there; metres from the segment's begin
     */
    private function spans(SectionLine $line, int $i): array
    {
        [$px, $py] = [$line->x[$i - 1], $line->y[$i - 1]];
        $length = $line->stations[$i] - $line->stations[$i - 1];
        if (!($length > 0.0)) {
            return [];
        }
        $ux = ($line->x[$i] - $px) / $length;
        $uy = ($line->y[$i] - $py) / $length;
        $seen = $spans = [];
        for ($s = 0.0; $s < $length; $s += $this->reach) {
            $e = min($length, $s + $this->reach);
            [$x0, $y0, $x1, $y1] = [$px + $s * $ux, $py + $s * $uy, $px + $e * $ux, $py + $e * $uy];
            $near = $this->locator->near(
                min($x0, $x1) - self::ON, min($y0, $y1) - self::ON, max($x0, $x1) + self::ON, max($y0, $y1) + self::ON,
            );
            foreach ($near as $h) {
                if (!isset($seen[$h])) {
                    $seen[$h] = true;
                    if (null !== $span = $this->within($h, $px, $py, $ux, $uy, $length)) {
                        $spans[] = $span;
                    }
                }
            }
        }
        usort($spans, static fn (array $a, array $b): int => $a[0] <=> $b[0] ?: $b[1] <=> $a[1]);
        $kept = [];
        $reached = -\INF;
        foreach ($spans as [$from, $to, $hFrom, $hTo]) {
            if ($to <= $reached + self::GAP) {
                continue; // along an edge both of its triangles say the same
            }
            if ($from < $reached) {
                $hFrom += ($hTo - $hFrom) * ($reached - $from) / ($to - $from);
                $from = $reached;
            }
            $kept[] = [$from, $to, $hFrom, $hTo];
            $reached = $to;
        }

        return $kept;
    }

    /** @return ?array{float, float, float, float} */
    private function within(int $h, float $px, float $py, float $ux, float $uy, float $length): ?array
    {
        $t = $this->tin->triangles;
        [$from, $to] = [0.0, $length];
        for ($k = 0; $k < 3; ++$k) {
            [$a, $b] = [$t[$h + $k], $t[$h + ($k + 1) % 3]];
            $ex = $this->tin->x[$b] - $this->tin->x[$a];
            $ey = $this->tin->y[$b] - $this->tin->y[$a];
            $edge = hypot($ex, $ey);
            // Distance to the left of the edge at the begin, and how it grows along the way.
            $d = ($ex * ($py - $this->tin->y[$a]) - $ey * ($px - $this->tin->x[$a])) / $edge;
            $rise = ($ex * $uy - $ey * $ux) / $edge;
            if (abs($rise) * $length <= self::ON) {
                if ($d < -self::ON) {
                    return null;
                }
            } elseif ($rise > 0.0) {
                $from = max($from, -$d / $rise);
            } else {
                $to = min($to, -$d / $rise);
            }
        }
        if ($to - $from <= self::GAP) {
            return null;
        }
        $height = fn (float $s): float => $this->locator->heightIn($h, $px + $s * $ux, $py + $s * $uy);

        return [$from, $to, $height($from), $height($to)];
    }
}
