<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** The surface through a surface's own outer edge: constrained Delaunay triangulation of the edge's vertices alone. */
final class RimSurface
{
    public static function of(Tin $tin): Tin
    {
        $number = [];
        $x = $y = $z = [];
        $edges = [];
        foreach ($tin->opposite as $h => $o) {
            if ($o >= 0) {
                continue;
            }
            $edge = [];
            foreach ([$tin->triangles[$h], $tin->triangles[2 === $h % 3 ? $h - 2 : $h + 1]] as $v) {
                if (!isset($number[$v])) {
                    $number[$v] = \count($x);
                    $x[] = $tin->x[$v];
                    $y[] = $tin->y[$v];
                    $z[] = $tin->z[$v];
                }
                $edge[] = $number[$v];
            }
            $edges[] = $edge;
        }
        $plane = SurfaceBuilder::scaled($x, $y);
        $constrained = new ConstrainedDelaunay($plane[0], $plane[1]);
        foreach ($edges as $edge) {
            $constrained->insert($edge[0], $edge[1] ?? $edge[0]);
        }
        $result = $constrained->result();

        // Only the common area counts later, so what the hull adds outside the edge does no harm.
        return new Tin($x, $y, $z, $result['triangles'], $result['opposite'], $result['constraints']);
    }
}
