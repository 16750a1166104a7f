<?php

declare(strict_types=1);

namespace Mensura\Cloud;

/**
 * Points that stand alone: whose mean distance to their neighbours is beyond the mean of all by more than some standard
 * deviations (statistical outlier removal, Rusu et al. 2008, Robotics and Autonomous Systems 56, section 3.2).
 */
final class Noise
{
    public const NEIGHBOURS = 8;
    public const DEVIATIONS = 3.0;

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array<int, true>
     */
    public static function of(array $x, array $y, array $z): array
    {
        $n = \count($x);
        if ($n <= self::NEIGHBOURS) {
            return [];
        }
        $neighbours = new Neighbours($x, $y, $z, self::NEIGHBOURS);
        $means = [];
        $sum = $squares = 0.0;
        foreach ($neighbours->inOrder() as $i) {
            $m = array_sum($neighbours->distances($i, self::NEIGHBOURS)) / self::NEIGHBOURS;
            $means[$i] = $m;
            $sum += $m;
            $squares += $m * $m;
        }
        $mean = $sum / $n;
        $most = $mean + self::DEVIATIONS * sqrt(max(0.0, $squares / $n - $mean * $mean));
        $alone = [];
        ksort($means);
        foreach ($means as $i => $m) {
            if ($m > $most) {
                $alone[$i] = true;
            }
        }

        return $alone;
    }
}
