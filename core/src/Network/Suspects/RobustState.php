<?php

declare(strict_types=1);

namespace Mensura\Network\Suspects;

use Mensura\Network\NetworkState;
use Mensura\Network\SolvedNetwork;

/**
 * A state of a network that a blunder has not drawn away: the least sum of standardized residuals instead of their squares.
 *
 * Iteratively reweighted least squares (Huber 1981, Robust Statistics; Krarup, Juhl and Kubik 1980), about the given
 * coordinates first, so that what a blunder does to the least-squares solution does not enter the linearization.
 */
final class RobustState
{
    /** Residuals up to this many standard deviations keep their weight. */
    private const TUNING = 1.5;

    /** Linearized anew this often, and reweighted in between. */
    private const LINEARIZATIONS = 4;
    private const REWEIGHTINGS = 7;

    public static function of(SolvedNetwork $solved, NetworkState $start): NetworkState
    {
        $state = clone $start;
        self::orient($solved, $state);
        $model = new LinearModel($solved, $state);
        $scale = array_fill(0, $solved->structure->table->count, 1.0);
        for ($k = 0; $k < self::LINEARIZATIONS; ++$k) {
            $model->linearize();
            $shift = [];
            for ($i = 0; $i < self::REWEIGHTINGS; ++$i) {
                $model->factor($scale);
                $shift = $model->step();
                $scale = self::scales($solved, $model->misclosureAfter($shift));
            }
            if (!($model->move($shift) < 1e5)) {
                return $solved->state;
            }
        }

        return $state;
    }

    /**
     * @param list<float> $misclosure
     *
     * @return list<float> per observation
     */
    private static function scales(SolvedNetwork $solved, array $misclosure): array
    {
        $table = $solved->structure->table;
        $scale = [];
        foreach ($solved->weights->weight as $i => $weight) {
            $row = $table->row[$i];
            $square = $weight * $misclosure[$row] ** 2;
            if (isset($solved->weights->matrix[$i])) {
                $square = 0.0;
                foreach ($solved->weights->matrix[$i] as $r => $line) {
                    foreach ($line as $c => $value) {
                        $square += $misclosure[$row + $r] * $value * $misclosure[$row + $c];
                    }
                }
                $square /= 3.0;
            }
            $scale[] = $square > self::TUNING ** 2 ? self::TUNING / sqrt($square) : 1.0;
        }

        return $scale;
    }

    /** Each set turned so that most of its directions agree: by the direction from which the others are least away. */
    private static function orient(SolvedNetwork $solved, NetworkState $state): void
    {
        $model = new LinearModel($solved, $state);
        $sets = \count($solved->structure->table->setNames);
        $state->orientation = $sets > 0 ? array_fill(0, $sets, 0.0) : [];
        $model->linearize();
        $turns = [];
        $table = $solved->structure->table;
        foreach ($table->set as $i => $set) {
            if ($set >= 0 && $solved->used[$i][0]) {
                $turns[$set][] = -$model->linearization->misclosure[$table->row[$i]];
            }
        }
        foreach ($turns as $set => $list) {
            $best = \INF;
            foreach (\array_slice($list, 0, 60) as $turn) {
                $sum = 0.0;
                foreach ($list as $other) {
                    $sum += abs(self::half($other - $turn));
                }
                if ($sum < $best) {
                    $best = $sum;
                    $state->orientation[$set] = $turn;
                }
            }
        }
    }

    private static function half(float $radians): float
    {
        return $radians - 2.0 * \M_PI * round($radians / (2.0 * \M_PI));
    }
}
