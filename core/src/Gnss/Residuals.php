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

    /** Whether they are of the combination without ionosphere, which is three times as noisy. */
    public bool $isFree = false;

    /**
     * @param array<int, true>  $leftOut     arcs not used
     * @param array<int, float> $ambiguities of the arcs as they were solved, metres: what the means start from
     */
    public function __construct(
        Session $session, Sights $sights, Arcs $arcs, array $leftOut, Atmosphere $atmosphere, array $ambiguities,
    ) {
        if ($atmosphere->isFree) {
            $this->isFree = true;
        }
        $raw = $variance = [];
        // Clocks and ambiguities in turn: a few rounds of means settle both.
        foreach ($session->times as $k => $unused) {
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                foreach ([0, 1] as $band) {
                    $a = $arcs->of[$band][$i];
                    if ($a >= 0 && !isset($leftOut[$a])) {
                        $phase = $session->phase[$band][$i] - ($ambiguities[$a] ?? 0.0);
                        $gain = 1.0;
                        if ($this->isFree) {
                            // The combination without ionosphere, kept with the arc of the first band.
                            $other = $arcs->of[1][$i];
                            if (1 === $band || $other < 0 || isset($leftOut[$other])) {
                                continue;
                            }
                            $ratio = self::ratio($session, $i);
                            $gain = $ratio / ($ratio - 1.0);
                            $phase = $gain * $phase - ($gain - 1.0) * ($session->phase[1][$i] - ($ambiguities[$other] ?? 0.0));
                            $gain = $gain * $gain + ($gain - 1.0) ** 2;
                        }
                        $raw[$session->satellite[$i][0].$band][$k][$a] = $phase - $sights->computed[$i];
                        [$ionosphere, $air] = $atmosphere->variances($sights->elevation[$i]);
                        $variance[$a][$k] = $gain * FloatSolution::variance(true, $sights->elevation[$i])
                            + ($this->isFree ? 0.0 : $ionosphere) + $air;
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
        $lowest = \INF;
        foreach ($variance as $epochs) {
            $lowest = min($lowest, ...array_values($epochs));
        }
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

    /** Of the squared frequencies, first to second. */
    private static function ratio(Session $session, int $i): float
    {
        [$one, $two] = $session->wavelength[$session->satellite[$i][0]];

        return null === $two ? 1.0 : ($two / $one) ** 2;
    }
}
