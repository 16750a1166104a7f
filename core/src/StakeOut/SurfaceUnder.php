<?php

declare(strict_types=1);

namespace Mensura\StakeOut;

/** The height of a triangulated surface under a few places, without building what a search over many would need. Metres. */
final class SurfaceUnder
{
    /** Of a triangle's doubled area: a place on an edge is in both its triangles. */
    private const EDGE = 1e-12;

    /**
     * Where several triangles lie under a place, as on an overhang, the highest counts: that is what is walked on.
     *
     * @param list<float>                $x
     * @param list<float>                $y
     * @param list<float>                $z
     * @param list<int>                  $triangles corners three a face, either way round
     * @param list<array{float, float}> $places    easting, northing
     *
     * @return list<?float> null beside the surface
     */
    public static function of(array $x, array $y, array $z, array $triangles, array $places): array
    {
        $heights = array_fill(0, \count($places), null);
        for ($h = 0, $end = \count($triangles); $h < $end; $h += 3) {
            [$a, $b, $c] = [$triangles[$h], $triangles[$h + 1], $triangles[$h + 2]];
            [$ax, $ay, $bx, $by, $cx, $cy] = [$x[$a], $y[$a], $x[$b], $y[$b], $x[$c], $y[$c]];
            $west = min($ax, $bx, $cx);
            $east = max($ax, $bx, $cx);
            $south = min($ay, $by, $cy);
            $north = max($ay, $by, $cy);
            foreach ($places as $i => [$e, $n]) {
                if ($e < $west || $e > $east || $n < $south || $n > $north) {
                    continue;
                }
                $twice = ($bx - $ax) * ($cy - $ay) - ($cx - $ax) * ($by - $ay);
                if (0.0 === $twice) {
                    continue;
                }
                // Barycentric coordinates.
                $v = (($e - $ax) * ($cy - $ay) - ($cx - $ax) * ($n - $ay)) / $twice;
                $w = (($bx - $ax) * ($n - $ay) - ($e - $ax) * ($by - $ay)) / $twice;
                if ($v < -self::EDGE || $w < -self::EDGE || $v + $w > 1.0 + self::EDGE) {
                    continue;
                }
                $height = $z[$a] + $v * ($z[$b] - $z[$a]) + $w * ($z[$c] - $z[$a]);
                $heights[$i] = null === $heights[$i] ? $height : max($heights[$i], $height);
            }
        }

        return $heights;
    }
}
