<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features;

/** Which way a closed line of places runs, in plan. */
final class Ring
{
    /**
     * Twice its area in square units of its coordinates, positive anticlockwise (the trapezoidal formula, from its first place so that
     * large coordinates lose nothing).
     *
     * @param list<array{float, float, ?float}> $ring
     */
    public static function twiceArea(array $ring): float
    {
        $sum = 0.0;
        for ($i = 1, $n = \count($ring); $i < $n; ++$i) {
            $sum += ($ring[$i - 1][0] - $ring[0][0]) * ($ring[$i][1] - $ring[0][1])
                - ($ring[$i][0] - $ring[0][0]) * ($ring[$i - 1][1] - $ring[0][1]);
        }

        return $sum;
    }
}
