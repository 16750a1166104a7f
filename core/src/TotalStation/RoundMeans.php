<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/**
 * Directions of several rounds brought together: one orientation unknown a round, all sights of equal weight.
 *
 * Least squares as for sets of directions in ISO 17123-3, also for incomplete rounds. The targets are eliminated first,
 * so that what is solved has the size of the rounds.
 */
final class RoundMeans
{
    /** @var array<int, float> per target, degrees from the first target's round */
    public array $directions = [];

    /** Of squared residuals, square degrees. */
    public float $sumSquares = 0.0;

    public int $redundancy = 0;

    /** False when some rounds share no target with the others. */
    public bool $connected = true;

    /** @param list<FaceSight> $sights */
    public function __construct(array $sights)
    {
        $byRound = $byTarget = [];
        foreach ($sights as $i => $sight) {
            $byRound[$sight->round][] = $i;
            $byTarget[$sight->target][] = $i;
        }
        [$orientation, $parts] = $this->approximate($sights, $byRound, $byTarget);
        $this->connected = $parts <= 1;
        $this->redundancy = \count($sights) - \count($byTarget) - \count($byRound) + $parts;
        $this->solve($sights, $byRound, $byTarget, $orientation);
    }

    /** A turn of less than half a circle either way. */
    public static function turn(float $degrees): float
    {
        return $degrees - 360.0 * round($degrees / 360.0);
    }

    /**
     * Spreads directions and orientations from sight to sight.
     *
     * @param list<FaceSight>              $sights
     * @param array<array-key, list<int>>  $byRound
     * @param array<int, list<int>>        $byTarget
     *
     * @return array{array<array-key, float>, int} orientation per round; number of parts without a common target
     */
    private function approximate(array $sights, array $byRound, array $byTarget): array
    {
        $orientation = [];
        $parts = 0;
        foreach ($byRound as $start => $unused) {
            if (isset($orientation[$start])) {
                continue;
            }
            ++$parts;
            $orientation[$start] = 0.0;
            $open = [$start];
            while (null !== $round = array_pop($open)) {
                foreach ($byRound[$round] as $i) {
                    $target = $sights[$i]->target;
                    if (isset($this->directions[$target])) {
                        continue;
                    }
                    $this->directions[$target] = $sights[$i]->direction - $orientation[$round];
                    foreach ($byTarget[$target] as $j) {
                        $other = $sights[$j]->round;
                        if (!isset($orientation[$other])) {
                            $orientation[$other] = $sights[$j]->direction - $this->directions[$target];
                            $open[] = $other;
                        }
                    }
                }
            }
        }

        return [$orientation, $parts];
    }

    /**
     * @param list<FaceSight>             $sights
     * @param array<array-key, list<int>> $byRound
     * @param array<int, list<int>>       $byTarget
     * @param array<array-key, float>     $orientation
     */
    private function solve(array $sights, array $byRound, array $byTarget, array $orientation): void
    {
        $number = array_flip(array_keys($byRound));
        $n = \count($number);
        $misfit = [];
        foreach ($sights as $i => $sight) {
            $misfit[$i] = self::turn($sight->direction - $this->directions[$sight->target] - $orientation[$sight->round]);
        }
        // Normal equations of the rounds after the targets' means are taken out.
        $normal = array_fill(0, $n * $n, 0.0);
        $rhs = array_fill(0, $n, 0.0);
        foreach ($byTarget as $list) {
            $mean = 0.0;
            $share = 1.0 / \count($list);
            foreach ($list as $i) {
                $mean += $misfit[$i] * $share;
            }
            $inRound = [];
            foreach ($list as $i) {
                $r = $number[$sights[$i]->round];
                $rhs[$r] += $misfit[$i] - $mean;
                $inRound[$r] = ($inRound[$r] ?? 0) + 1;
            }
            foreach ($inRound as $r => $count) {
                $normal[$r * $n + $r] += $count;
                foreach ($inRound as $s => $other) {
                    $normal[$r * $n + $s] -= $count * $other * $share;
                }
            }
        }
        $shift = self::semidefinite($normal, $rhs, $n);
        foreach ($byTarget as $target => $list) {
            $mean = 0.0;
            foreach ($list as $i) {
                $mean += ($misfit[$i] - $shift[$number[$sights[$i]->round]]) / \count($list);
            }
            $this->directions[$target] += $mean;
            foreach ($list as $i) {
                $this->sumSquares += ($misfit[$i] - $shift[$number[$sights[$i]->round]] - $mean) ** 2;
            }
        }
    }

    /**
     * Gauss elimination of a semidefinite system; what is undetermined (the orientation common to connected rounds) is 0.
     *
     * @param list<float> $a   n by n, row by row
     * @param list<float> $rhs
     *
     * @return list<float>
     */
    private static function semidefinite(array $a, array $rhs, int $n): array
    {
        $scale = 0.0;
        for ($k = 0; $k < $n; ++$k) {
            $scale = max($scale, $a[$k * $n + $k]);
        }
        $kept = array_fill(0, max($n, 1), true);
        for ($k = 0; $k < $n; ++$k) {
            $pivot = $a[$k * $n + $k];
            if ($pivot <= 1e-10 * $scale || 0.0 === $scale) {
                $kept[$k] = false;
                continue;
            }
            for ($i = $k + 1; $i < $n; ++$i) {
                $f = $a[$i * $n + $k] / $pivot;
                if (0.0 !== $f) {
                    for ($j = $k; $j < $n; ++$j) {
                        $a[$i * $n + $j] -= $f * $a[$k * $n + $j];
                    }
                    $rhs[$i] -= $f * $rhs[$k];
                }
            }
        }
        $x = array_fill(0, max($n, 1), 0.0);
        for ($k = $n - 1; $k >= 0; --$k) {
            if ($kept[$k]) {
                $sum = $rhs[$k];
                for ($j = $k + 1; $j < $n; ++$j) {
                    $sum -= $a[$k * $n + $j] * $x[$j];
                }
                $x[$k] = $sum / $a[$k * $n + $k];
            }
        }

        return $x;
    }
}
