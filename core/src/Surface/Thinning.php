<?php

declare(strict_types=1);

namespace Mensura\Surface;

/** Fewer points that lie evenly: of those in each square of the plan the one nearest to its middle, so that every one is measured. */
final class Thinning
{
    /**
     * @param list<float> $x       metres
     * @param list<float> $y
     * @param float       $spacing side of the squares, metres, greater than nothing
     *
     * @return list<int> numbers of the points that stay, ascending
     */
    public static function kept(array $x, array $y, float $spacing): array
    {
        if ([] === $x || [] === $y) {
            return [];
        }
        $west = min($x);
        $south = min($y);
        $columns = (int) ((max($x) - $west) / $spacing) + 1;
        $best = $away = [];
        foreach ($x as $i => $px) {
            $u = ($px - $west) / $spacing;
            $v = ($y[$i] - $south) / $spacing;
            $square = (int) $v * $columns + (int) $u;
            $d = ($u - (int) $u - 0.5) ** 2 + ($v - (int) $v - 0.5) ** 2;
            if (!isset($away[$square]) || $d < $away[$square]) {
                $away[$square] = $d;
                $best[$square] = $i;
            }
        }
        sort($best);

        return $best;
    }
}
