<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Phase residuals of a session at a position: differences to the weighted mean of the epoch, less the mean of their arc, which
 * takes the ambiguity, float or integer, out of it.
 */
final class Residuals
{
    /** Root mean square of the differences between satellites, metres. */
    public float $rms = 0.0;

    /** The same with less weight for low satellites, whose atmosphere is known worst: what says that integers are wrong. */
    public float $steady = 0.0;

    /** Mean of squares over their variances. */
    public float $factor = 1.0;

    /** By how much fewer epochs than there are would say as much, from the correlation of neighbours. */
    public float $inflation = 1.0;

    /** @var array<int, array<int, float>> metres by arc and epoch */
    public array $byArc = [];

    /**
     * @param array<int, true> $leftOut    arcs not used
     * @param float            $ionosphere standard deviation of its difference in the zenith, metres
     */
    public function __construct(Session $session, Sights $sights, Arcs $arcs, array $leftOut, float $ionosphere)
    {
        $raw = $variance = [];
        // Clocks and ambiguities in turn: a few rounds of means settle both.
        foreach ($session->times as $k => $unused) {
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                foreach ([0, 1] as $band) {
                    $a = $arcs->of[$band][$i];
                    if ($a >= 0 && !isset($leftOut[$a])) {
                        $raw[$session->satellite[$i][0].$band][$k][$a] = $session->phase[$band][$i] - $sights->computed[$i];
                        $variance[$a][$k] = FloatSolution::variance(true, $sights->elevation[$i])
                            + array_sum(FloatSolution::common($ionosphere, $sights->elevation[$i]));
                    }
                }
            }
        }
        $level = [];
        foreach ($raw as $group => $epochs) {
            for ($round = 0; $round < 30; ++$round) {
                $sum = $count = [];
                foreach ($epochs as $k => $values) {
                    $weights = $mean = 0.0;
                    foreach ($values as $a => $value) {
                        $p = 1.0 / $variance[$a][$k];
                        $mean += $p * ($value - ($level[$a] ?? 0.0));
                        $weights += $p;
                    }
                    $mean /= $weights;
                    foreach ($values as $a => $value) {
                        $sum[$a] = ($sum[$a] ?? 0.0) + $value - $mean;
                        $count[$a] = ($count[$a] ?? 0) + 1;
                        if (29 === $round) {
                            $this->byArc[$a][$k] = $value - $mean - ($level[$a] ?? 0.0);
                        }
                    }
                }
                foreach ($sum as $a => $value) {
                    $level[$a] = $value / $count[$a];
                }
            }
        }
        $squares = $weighted = $product = $high = $weights = 0.0;
        $n = $pairs = 0;
        $lowest = FloatSolution::variance(true, \M_PI / 2.0) + array_sum(FloatSolution::common($ionosphere, \M_PI / 2.0));
        foreach ($this->byArc as $a => $values) {
            $before = null;
            foreach ($values as $k => $v) {
                $squares += $v * $v;
                $weighted += $v * $v / $variance[$a][$k];
                $p = ($lowest / $variance[$a][$k]) ** 2;
                $high += $p * $v * $v;
                $weights += $p;
                ++$n;
                if (null !== $before) {
                    $product += $before * $v;
                    ++$pairs;
                }
                $before = $v;
            }
        }
        if ($n > 0) {
            // A difference of two satellites has twice the variance of one.
            $this->rms = sqrt(2.0 * $squares / $n);
            $this->steady = sqrt(2.0 * $high / $weights);
            $this->factor = $weighted / $n;
            $rho = $pairs > 0 && $squares > 0.0 ? max(0.0, min(0.98, ($product / $pairs) / ($squares / $n))) : 0.0;
            $this->inflation = (1.0 + $rho) / (1.0 - $rho);
        }
    }
}
