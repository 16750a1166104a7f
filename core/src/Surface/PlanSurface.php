<?php

declare(strict_types=1);

namespace Mensura\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Corners;

/**
 * A surface of faces that are there already, as a design draws them: corners at one place become one, faces are turned anticlockwise
 * from above, upright ones are left out. A surface has one height at a place: faces above one another are refused.
 */
final class PlanSurface
{
    /** Twice the plan area, square metres, up to which a face stands upright. */
    private const UPRIGHT = 1e-9;

    /**
     * @param list<float> $x metres
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $triangles corners, three a face, in any sense
     *
     * @return array{Tin, int} and how many faces were left out because they stand upright
     *
     * @throws UnusableInput
     */
    public static function of(array $x, array $y, array $z, array $triangles): array
    {
        $same = (new Corners($x, $y, $z))->same;
        $px = $py = $pz = $to = $faces = $seen = [];
        $upright = 0;
        for ($h = 0, $end = \count($triangles); $h < $end; $h += 3) {
            [$a, $b, $c] = [$same[$triangles[$h]], $same[$triangles[$h + 1]], $same[$triangles[$h + 2]]];
            $twice = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($y[$b] - $y[$a]) * ($x[$c] - $x[$a]);
            if (abs($twice) <= self::UPRIGHT) {
                ++$upright;
                continue;
            }
            $corners = $twice > 0.0 ? [$a, $b, $c] : [$a, $c, $b];
            $key = $corners;
            sort($key);
            $key = implode(' ', $key);
            if (isset($seen[$key])) {
                continue; // drawn twice
            }
            $seen[$key] = true;
            foreach ($corners as $v) {
                if (!isset($to[$v])) {
                    $to[$v] = \count($px);
                    $px[] = $x[$v];
                    $py[] = $y[$v];
                    $pz[] = $z[$v];
                }
                $faces[] = $to[$v];
            }
        }
        if ([] === $faces) {
            throw new UnusableInput('', 'every face stands upright: they are no surface; compare with them as a design');
        }
        self::refuseSharedSides($px, $py, $faces);
        $tin = Tin::ofTriangles($px, $py, $pz, $faces);
        self::refuseCovered($tin);

        return [$tin, $upright];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<int>   $faces anticlockwise
     */
    private static function refuseSharedSides(array $x, array $y, array $faces): void
    {
        $edges = [];
        $count = \count($x);
        foreach ($faces as $h => $u) {
            $v = $faces[2 === $h % 3 ? $h - 2 : $h + 1];
            if (isset($edges[$u * $count + $v])) {
                throw self::covered(0.5 * ($x[$u] + $x[$v]), 0.5 * ($y[$u] + $y[$v]));
            }
            $edges[$u * $count + $v] = true;
        }
    }

    /** The middle of each face lies in no other. */
    private static function refuseCovered(Tin $tin): void
    {
        $locator = new Locator($tin);
        [$t, $x, $y] = [$tin->triangles, $tin->x, $tin->y];
        for ($h = 0, $end = \count($t); $h < $end; $h += 3) {
            $mx = ($x[$t[$h]] + $x[$t[$h + 1]] + $x[$t[$h + 2]]) / 3.0;
            $my = ($y[$t[$h]] + $y[$t[$h + 1]] + $y[$t[$h + 2]]) / 3.0;
            foreach ($locator->near($mx, $my, $mx, $my) as $other) {
                if ($other !== $h && self::holds($tin, $other, $mx, $my)) {
                    throw self::covered($mx, $my);
                }
            }
        }
    }

    private static function holds(Tin $tin, int $h, float $px, float $py): bool
    {
        for ($k = 0; $k < 3; ++$k) {
            [$a, $b] = [$tin->triangles[$h + $k], $tin->triangles[$h + ($k + 1) % 3]];
            [$ux, $uy] = [$tin->x[$b] - $tin->x[$a], $tin->y[$b] - $tin->y[$a]];
            // A hair inside the edge, so that neighbours that merely touch are none that cover.
            if ($ux * ($py - $tin->y[$a]) - $uy * ($px - $tin->x[$a]) <= 1e-6 * ($ux * $ux + $uy * $uy)) {
                return false;
            }
        }

        return true;
    }

    private static function covered(float $x, float $y): UnusableInput
    {
        return new UnusableInput('', \sprintf(
            'faces lie above one another at %.3f E %.3f N: a surface has one height at a place; take only the upper or the lower ones, '
            .'by layer or by picking', $x, $y,
        ));
    }
}
