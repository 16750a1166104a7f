<?php

declare(strict_types=1);

namespace Mensura\Deviation;

/**
 * What deviations changed by from one survey to a later one: each place less the nearest of the earlier survey, in plan. A
 * place without one near enough has no change. Metres.
 */
final class EpochChange
{
    /** How far apart points lie on the whole: the side of the square each has for itself. */
    public static function spacing(float $width, float $height, int $count): float
    {
        return max(1e-3, sqrt(max($width, 1e-3) * max($height, 1e-3) / max(1, $count)));
    }

    /**
     * @param list<float> $x      of the later survey
     * @param list<float> $y
     * @param list<float> $d      NAN beside the reference
     * @param list<float> $oldX   of the earlier survey
     * @param list<float> $oldY
     * @param list<float> $oldD
     * @param float       $within greatest distance in plan of two places that are one
     *
     * @return list<float> later less earlier; NAN where either is missing
     */
    public static function between(array $x, array $y, array $d, array $oldX, array $oldY, array $oldD, float $within): array
    {
        $cells = [];
        $x0 = [] === $oldX ? 0.0 : min($oldX);
        $y0 = [] === $oldY ? 0.0 : min($oldY);
        foreach ($oldX as $i => $px) {
            if (!is_nan($oldD[$i])) {
                $cells[(int) floor(($px - $x0) / $within).' '.(int) floor(($oldY[$i] - $y0) / $within)][] = $i;
            }
        }
        $change = [];
        foreach ($x as $i => $px) {
            $best = $within * $within * (1.0 + 1e-12);
            $nearest = -1;
            [$cx, $cy] = [(int) floor(($px - $x0) / $within), (int) floor(($y[$i] - $y0) / $within)];
            for ($ix = $cx - 1; $ix <= $cx + 1; ++$ix) {
                for ($iy = $cy - 1; $iy <= $cy + 1; ++$iy) {
                    foreach ($cells["$ix $iy"] ?? [] as $j) {
                        $away = ($oldX[$j] - $px) ** 2 + ($oldY[$j] - $y[$i]) ** 2;
                        if ($away < $best) {
                            [$best, $nearest] = [$away, $j];
                        }
                    }
                }
            }
            $change[] = $nearest < 0 ? \NAN : $d[$i] - $oldD[$nearest];
        }

        return $change;
    }
}
