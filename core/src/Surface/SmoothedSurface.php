<?php

declare(strict_types=1);

namespace Mensura\Surface;

/**
 * A surface bent smoothly between its vertices, for contours that are smooth and cannot cross: they are level lines of one
 * continuous surface, so two heights never meet.
 *
 * Every triangle becomes a cubic Bézier triangle (the construction of curved point-normal triangles, Vlachos and others
 * 2001, with heights only): along an edge the curve depends on the two ends alone, so neighbours agree. Control heights
 * stay between those of the edge, and the patch within those of its triangle: no hill is made that was not surveyed.
 * Along breaklines and at their vertices nothing bends.
 */
final class SmoothedSurface
{
    /** @param int $parts into which every edge is divided, 2 or more */
    public static function of(Tin $tin, int $parts): Tin
    {
        $t = $tin->triangles;
        [$gx, $gy] = self::gradients($tin);
        $stiff = self::stiff($tin);
        $x = $tin->x;
        $y = $tin->y;
        $z = $tin->z;
        // The height a third of the way from one vertex to the next.
        $third = static function (int $v, int $w) use ($x, $y, $z, $gx, $gy, $stiff): float {
            $straight = $z[$v] + ($z[$w] - $z[$v]) / 3.0;
            if (isset($stiff[$v])) {
                return $straight;
            }
            $bent = $z[$v] + ($gx[$v] * ($x[$w] - $x[$v]) + $gy[$v] * ($y[$w] - $y[$v])) / 3.0;

            return max(min($z[$v], $z[$w]), min(max($z[$v], $z[$w]), $bent));
        };
        $edge = [];
        $given = \count($x);
        $triangles = [];
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $ab = $third($a, $b);
            $ba = $third($b, $a);
            $bc = $third($b, $c);
            $cb = $third($c, $b);
            $ca = $third($c, $a);
            $ac = $third($a, $c);
            $middle = ($ab + $ba + $bc + $cb + $ca + $ac) / 4.0 - ($z[$a] + $z[$b] + $z[$c]) / 6.0;
            $middle = max(min($z[$a], $z[$b], $z[$c]), min(max($z[$a], $z[$b], $z[$c]), $middle));
            $number = [];
            for ($i = 0; $i <= $parts; ++$i) {
                for ($j = 0; $j <= $parts - $i; ++$j) {
                    $k = $parts - $i - $j;
                    // u towards a, v towards b, w towards c
                    [$u, $v, $w] = [$i / $parts, $j / $parts, $k / $parts];
                    $corner = match ($parts) {
                        $i => $a, $j => $b, $k => $c, default => -1,
                    };
                    if ($corner >= 0) {
                        $number[$i][$j] = $corner;
                        continue;
                    }
                    [$p, $q, $n] = match (0) {
                        $k => [$a, $b, $i], $i => [$b, $c, $j], $j => [$c, $a, $k], default => [-1, -1, 0],
                    };
                    // One number for a place on an edge, whichever triangle it is seen from.
                    $key = $p < 0 ? -1 : ($p < $q ? ($p * $given + $q) * $parts + $n : ($q * $given + $p) * $parts + $parts - $n);
                    if ($key >= 0 && isset($edge[$key])) {
                        $number[$i][$j] = $edge[$key];
                        continue;
                    }
                    $number[$i][$j] = \count($x);
                    if ($key >= 0) {
                        $edge[$key] = \count($x);
                    }
                    $x[] = $u * $tin->x[$a] + $v * $tin->x[$b] + $w * $tin->x[$c];
                    $y[] = $u * $tin->y[$a] + $v * $tin->y[$b] + $w * $tin->y[$c];
                    $z[] = $u ** 3 * $tin->z[$a] + $v ** 3 * $tin->z[$b] + $w ** 3 * $tin->z[$c]
                        + 3.0 * ($u * $u * ($v * $ab + $w * $ac) + $v * $v * ($u * $ba + $w * $bc) + $w * $w * ($u * $ca + $v * $cb))
                        + 6.0 * $u * $v * $w * $middle;
                }
            }
            for ($i = 0; $i < $parts; ++$i) {
                for ($j = 0; $j < $parts - $i; ++$j) {
                    array_push($triangles, $number[$i + 1][$j], $number[$i][$j + 1], $number[$i][$j]);
                    if ($j < $parts - $i - 1) {
                        array_push($triangles, $number[$i + 1][$j], $number[$i + 1][$j + 1], $number[$i][$j + 1]);
                    }
                }
            }
        }

        return Tin::ofTriangles($x, $y, $z, $triangles);
    }

    /** @return array{list<float>, list<float>} slopes at the vertices: means of the triangles there, each by its area */
    private static function gradients(Tin $tin): array
    {
        $n = \count($tin->x);
        $gx = $gy = $weight = array_fill(0, max(1, $n), 0.0);
        $t = $tin->triangles;
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            [$a, $b, $c] = [$t[$h], $t[$h + 1], $t[$h + 2]];
            $ux = $tin->x[$b] - $tin->x[$a];
            $uy = $tin->y[$b] - $tin->y[$a];
            $uz = $tin->z[$b] - $tin->z[$a];
            $vx = $tin->x[$c] - $tin->x[$a];
            $vy = $tin->y[$c] - $tin->y[$a];
            $vz = $tin->z[$c] - $tin->z[$a];
            $twice = $ux * $vy - $uy * $vx;
            foreach ([$a, $b, $c] as $v) {
                $gx[$v] += $uz * $vy - $uy * $vz;
                $gy[$v] += $ux * $vz - $uz * $vx;
                $weight[$v] += $twice;
            }
        }
        foreach ($weight as $v => $w) {
            if ($w > 0.0) {
                $gx[$v] /= $w;
                $gy[$v] /= $w;
            }
        }

        return [array_values($gx), array_values($gy)];
    }

    /** @return array<int, true> vertices on breaklines */
    private static function stiff(Tin $tin): array
    {
        $stiff = [];
        foreach (array_keys($tin->constraints) as $edge) {
            foreach (explode(' ', (string) $edge) as $v) {
                $stiff[(int) $v] = true;
            }
        }

        return $stiff;
    }
}
