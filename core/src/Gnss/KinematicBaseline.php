<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Fault\UnusableInput;
use Mensura\LinearAlgebra\Dense;

/**
 * A rover that moves: its place at every epoch, from phases whose ambiguities the whole session determines.
 *
 * @phpstan-import-type Block from FloatSolution
 */
final class KinematicBaseline
{
    /** Satellites with integer ambiguities that make an epoch a fixed one. */
    private const LEAST = 4;

    /** Phase residuals above this say that an epoch's integers are wrong, metres. */
    private const MOST = 0.020;

    /** Variances of an epoch are so much larger than formal ones: neighbouring errors hang together (common practice). */
    private const WIDER = 1.5;

    /** What remains beside the formal precision, metres and parts of the line: plan, up. */
    private const FLOOR = [[0.003, 0.5e-6], [0.006, 1.0e-6]];

    public function __construct(private readonly Session $session, private readonly Orbits $orbits, private readonly Options $options)
    {
    }

    /**
     * @param array{float, float, float}       $base       antenna
     * @param list<array{float, float, float}> $track      the rover at every epoch, within some metres
     * @param list<float>                      $baseClock  seconds per epoch
     * @param list<float>                      $roverClock likewise
     *
     * @throws UnusableInput when there is not enough to determine it
     */
    public function solve(array $base, array $track, array $baseClock, array $roverClock): BaselineSolution
    {
        $solution = new BaselineSolution();
        $length = Horizon::distance($base, $track[0]);
        for ($round = 0; $round < 2; ++$round) {
            $sights = new Sights($this->session, $this->orbits, $base, $track[0], $baseClock, $roverClock, $track);
            $arcs = new Arcs($this->session, $sights, $this->options->mask, true);
            $left = $arcs->tooShort();
            $float = new FloatSolution($this->session, $sights, $arcs, Atmosphere::over($length, $this->options->isFree), $left, true);
            if (!$float->solve()) {
                throw new UnusableInput('', 'there are not enough common satellites to determine a track');
            }
            $fix = new IntegerFix($float);
            $solution = new BaselineSolution();
            $solution->ratio = $fix->ratio;
            $this->epochs($solution, $float, $fix, $arcs, $track, $length);
        }
        if ([] === $solution->track) {
            throw new UnusableInput('', 'no epoch has enough satellites for a place of its own');
        }
        $this->mean($solution, $base);
        $solution->satellites = $arcs->tally($left);

        return $solution;
    }

    /**
     * The place at every epoch with the ambiguities as they are known; the track is brought there.
     *
     * @param list<array{float, float, float}> $track
     */
    private function epochs(
        BaselineSolution $solution, FloatSolution $float, IntegerFix $fix, Arcs $arcs, array &$track, float $length,
    ): void {
        $arcOf = array_flip($float->unknown);
        $squares = $redundancy = $phaseSquares = 0.0;
        $phases = 0;
        $found = [];
        foreach ($this->session->times as $k => $time) {
            $epoch = $float->epoch($k);
            if (null === $epoch) {
                continue;
            }
            [$blocks, $c] = $epoch;
            $n = array_fill(0, $c, array_fill(0, $c, 0.0));
            $b = array_fill(0, $c, 0.0);
            $cross = [[], [], []];
            $count = 0;
            foreach ($blocks as [$rows, $weight]) {
                foreach ($rows as $r => [$aR, $wR, $eR]) {
                    ++$count;
                    foreach ($rows as $s => [$aS, $wS, $eS]) {
                        $p = $weight[$r][$s];
                        foreach ($aS as $u => $value) {
                            $wS -= $value * $fix->x[$u];
                        }
                        foreach ($eR as $g => $one) {
                            $b[$g] += $one * $p * $wS;
                            foreach ($eS as $h => $two) {
                                $n[$g][$h] += $one * $p * $two;
                            }
                        }
                    }
                }
            }
            $q = $count > $c ? Dense::inverse($n) : null;
            if (null === $q) {
                continue;
            }
            $x = array_map(
                static fn (array $row): float => array_sum(array_map(static fn (float $v, float $w): float => $v * $w, $row, $b)),
                $q,
            );
            [$square, $phase, $phaseCount] = self::misfit($blocks, $fix->x, $x);
            $squares += $square;
            $redundancy += $count - $c;
            $phaseSquares += $phase;
            $phases += $phaseCount;
            $covariance = self::withAmbiguities($blocks, $q, $fix->q);
            $place = [$track[$k][0] + $x[0], $track[$k][1] + $x[1], $track[$k][2] + $x[2]];
            $isSure = $fix->sureSatellites($this->session, $arcs, $k) >= self::LEAST
                && $phaseCount > 0 && sqrt($phase / $phaseCount) < self::MOST;
            $found[] = [$time, $place, $isSure, \count($blocks), $covariance];
            $track[$k] = $place;
        }
        $factor = $redundancy > 0.0 ? max(1.0, $squares / $redundancy) : 1.0;
        $plan = self::FLOOR[0][0] + self::FLOOR[0][1] * $length;
        $up = self::FLOOR[1][0] + self::FLOOR[1][1] * $length;
        $solution->rms = $phases > 0 ? sqrt(2.0 * $phaseSquares / $phases) : 0.0;
        foreach ($found as [$time, $place, $isSure, $satellites, $covariance]) {
            $solution->track[] = [
                'time' => $time, 'position' => $place, 'solution' => $isSure ? BaselineSolution::FIXED : BaselineSolution::FLOAT,
                'satellites' => $satellites, 'covariance' => Horizon::of($place)->widened($covariance, self::WIDER * $factor, $plan, $up),
            ];
        }
    }

    /**
     * @param list<Block> $blocks
     * @param list<float> $unknowns
     * @param list<float> $x        place and clocks
     *
     * @return array{float, float, int} weighted sum of squares; of the phases plain, and how many there are
     */
    private static function misfit(array $blocks, array $unknowns, array $x): array
    {
        $sum = $phase = 0.0;
        $phases = 0;
        foreach ($blocks as [$rows, $weight]) {
            $v = [];
            foreach ($rows as $r => [$a, $w, $e, $isPhase]) {
                foreach ($a as $u => $value) {
                    $w -= $value * $unknowns[$u];
                }
                foreach ($e as $g => $value) {
                    $w -= $value * $x[$g];
                }
                $v[$r] = $w;
                if ($isPhase) {
                    $phase += $w * $w;
                    ++$phases;
                }
            }
            foreach ($v as $r => $one) {
                foreach ($v as $s => $two) {
                    $sum += $one * $weight[$r][$s] * $two;
                }
            }
        }

        return [$sum, $phase, $phases];
    }

    /**
     * Covariance of the place: that of the epoch, and what the ambiguities bring into it.
     *
     * @param list<Block> $blocks
     * @param list<list<float>> $q          of the epoch's unknowns
     * @param list<list<float>> $ambiguities
     *
     * @return list<list<float>>
     */
    private static function withAmbiguities(array $blocks, array $q, array $ambiguities): array
    {
        $gain = [[], [], []];
        foreach ($blocks as [$rows, $weight]) {
            foreach ($rows as $r => [$aR, $wR, $eR]) {
                foreach ($rows as $s => [$aS]) {
                    foreach ($aS as $u => $value) {
                        foreach ($eR as $g => $one) {
                            for ($i = 0; $i < 3; ++$i) {
                                $gain[$i][$u] = ($gain[$i][$u] ?? 0.0) + $q[$i][$g] * $one * $weight[$r][$s] * $value;
                            }
                        }
                    }
                }
            }
        }
        $covariance = [];
        for ($i = 0; $i < 3; ++$i) {
            $row = [];
            for ($j = 0; $j < 3; ++$j) {
                $sum = $q[$i][$j];
                foreach ($gain[$i] as $u => $one) {
                    foreach ($gain[$j] as $v => $two) {
                        $sum += $one * $ambiguities[$u][$v] * $two;
                    }
                }
                $row[] = $sum;
            }
            $covariance[] = $row;
        }

        return $covariance;
    }

    /** @param array{float, float, float} $base */
    private function mean(BaselineSolution $solution, array $base): void
    {
        $n = array_fill(0, 3, [0.0, 0.0, 0.0]);
        $b = [0.0, 0.0, 0.0];
        $fixed = 0;
        foreach ($solution->track as $t) {
            $p = Dense::inverse($t['covariance']);
            $fixed += BaselineSolution::FIXED === $t['solution'] ? 1 : 0;
            for ($i = 0; null !== $p && $i < 3; ++$i) {
                for ($j = 0; $j < 3; ++$j) {
                    $n[$i][$j] += $p[$i][$j];
                    $b[$i] += $p[$i][$j] * ($t['position'][$j] - $base[$j]);
                }
            }
        }
        $inverse = Dense::inverse($n) ?? $solution->track[0]['covariance'];
        $shift = array_map(static fn (array $row): float => $row[0] * $b[0] + $row[1] * $b[1] + $row[2] * $b[2], $inverse);
        $solution->rover = [$base[0] + ($shift[0] ?? 0.0), $base[1] + ($shift[1] ?? 0.0), $base[2] + ($shift[2] ?? 0.0)];
        // Errors of neighbouring epochs hang together: the mean is no better than the best of ten.
        $solution->covariance = array_map(
            static fn (array $row): array => array_map(static fn (float $v): float => $v * max(1.0, \count($solution->track) / 10.0), $row),
            $inverse,
        );
        $solution->epochs = \count($solution->track);
        $solution->start = $solution->track[0]['time'];
        $solution->end = $solution->track[$solution->epochs - 1]['time'];
        $solution->solution = 2 * $fixed > $solution->epochs ? BaselineSolution::FIXED : BaselineSolution::FLOAT;
    }
}
