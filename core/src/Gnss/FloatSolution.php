<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/**
 * Position of a rover with real-valued ambiguities: least squares over all epochs. It stood still, or its place is another at
 * every epoch and is eliminated with the clocks.
 *
 * Differences between the receivers are observed; their clocks, one for every signal, system and epoch, are eliminated epoch by
 * epoch, which weighs as double differences with their correlations do. The ionosphere differs between the receivers by an
 * amount that is noise common to the four signals of a satellite, larger with the length of the line. Of each band and system
 * one ambiguity in a connected stretch of time is held at an integer: the others are differences to it.
 *
 * A block is a satellite at an epoch: of each signal the coefficients of the unknowns, the misclosure, the coefficients of the
 * unknowns of the epoch and whether it is a phase; and the weights among them.
 *
 * @phpstan-type Block array{list<array{array<int, float>, float, array<int, float>, bool}>, list<list<float>>}
 */
final class FloatSolution
{
    /** Standard deviations of one observation in the zenith, metres. */
    private const PHASE = 0.003;
    private const CODE = 0.35;

    /** Weight of an ambiguity at nought, per cycle squared. */
    private const LOOSE = 1e-9;

    /** @var array{float, float, float} shift of the position, metres geocentric */
    public array $shift = [0.0, 0.0, 0.0];

    /** @var array<int, int> place among the unknowns of each arc that is one */
    public array $unknown = [];

    /** @var array<int, float> integer at which an arc is held, cycles */
    public array $held = [];

    /** @var list<float> unknowns: shift, then ambiguities in cycles */
    public array $x = [];

    /** @var list<list<float>> their covariance for the stated precisions */
    public array $q = [];

    /** @var array<int, float> per arc, what observations less computed come to, cycles: codes against phases */
    private array $level = [];

    /**
     * @param array<int, true> $leftOut    arcs not used
     * @param bool             $moves      the rover has another place at every epoch; then no shift is among the unknowns
     */
    public function __construct(
        private readonly Session $session,
        private readonly Sights $sights,
        private readonly Arcs $arcs,
        private readonly Atmosphere $atmosphere,
        private readonly array $leftOut = [],
        private readonly bool $moves = false,
    ) {
    }

    /** @return bool false when there is not enough to determine it */
    public function solve(): bool
    {
        $this->levels();
        $this->holdReferences();
        $first = $count = $this->moves ? 0 : 3;
        foreach ($this->arcs->arcs as $a => $arc) {
            if (!isset($this->leftOut[$a]) && !isset($this->held[$a]) && $arc['count'] > 0) {
                $this->unknown[$a] = $count++;
            }
        }
        $n = array_fill(0, $count, array_fill(0, $count, 0.0));
        $b = array_fill(0, $count, 0.0);
        foreach ($this->session->times as $k => $unused) {
            $this->addEpoch($k, $n, $b);
        }
        if (0 === $count) {
            return false;
        }
        for ($u = $first; $u < $count; ++$u) {
            $n[$u][$u] += self::LOOSE; // what nothing determines stays where it is
        }
        $q = Dense::inverse(array_values($n));
        if (null === $q) {
            return false;
        }
        $this->q = $q;
        $this->x = [];
        foreach ($q as $i => $row) {
            if (!($row[$i] > 0.0)) {
                return false;
            }
            $sum = 0.0;
            foreach ($row as $j => $value) {
                $sum += $value * $b[$j];
            }
            $this->x[] = $sum;
        }
        if (!$this->moves) {
            $this->shift = [$this->x[0], $this->x[1], $this->x[2]];
        }

        return true;
    }

    /** Variance of rover less base at an elevation, metres squared. */
    public static function variance(bool $isPhase, float $elevation): float
    {
        $sine = max(0.05, sin($elevation));

        return 2.0 * ($isPhase ? self::PHASE : self::CODE) ** 2 * (0.5 + 0.5 / ($sine * $sine));
    }

    /**
     * Ambiguities of the arcs, metres.
     *
     * @param list<float> $x the unknowns, with integers or without
     *
     * @return array<int, float>
     */
    public function ambiguities(array $x): array
    {
        $metres = [];
        foreach ($this->arcs->arcs as $a => $arc) {
            $cycles = $this->held[$a] ?? (isset($this->unknown[$a]) ? $x[$this->unknown[$a]] : null);
            if (null !== $cycles) {
                $metres[$a] = $cycles * (float) $this->session->wavelength[$arc['satellite'][0]][$arc['band']];
            }
        }

        return $metres;
    }

    private function levels(): void
    {
        $sum = $count = [];
        foreach ([0, 1] as $band) {
            foreach ($this->arcs->of[$band] as $i => $a) {
                $code = $this->session->code[0][$i];
                if ($a >= 0 && !is_nan($code)) {
                    $wavelength = (float) $this->session->wavelength[$this->session->satellite[$i][0]][$band];
                    $sum[$a] = ($sum[$a] ?? 0.0) + ($this->session->phase[$band][$i] - $code) / $wavelength;
                    $count[$a] = ($count[$a] ?? 0) + 1;
                }
            }
        }
        foreach ($sum as $a => $value) {
            $this->level[$a] = $value / $count[$a];
        }
    }

    /** Of every band and system, and of every stretch of time that arcs join, the longest is held. */
    private function holdReferences(): void
    {
        $groups = [];
        foreach ($this->arcs->arcs as $a => $arc) {
            if (!isset($this->leftOut[$a]) && $arc['count'] > 0) {
                $groups[$arc['satellite'][0].$arc['band']][] = $a;
            }
        }
        foreach ($groups as $list) {
            usort($list, fn (int $a, int $b): int => $this->arcs->arcs[$a]['first'] <=> $this->arcs->arcs[$b]['first']);
            $stretch = [];
            $until = -1;
            foreach ([...$list, -1] as $a) {
                if ($a < 0 || [] !== $stretch && $this->arcs->arcs[$a]['first'] > $until) {
                    $longest = $stretch[0] ?? -1;
                    foreach ($stretch as $s) {
                        $longest = $this->arcs->arcs[$s]['count'] > $this->arcs->arcs[$longest]['count'] ? $s : $longest;
                    }
                    if ($longest >= 0) {
                        $this->held[$longest] = round($this->level[$longest] ?? 0.0);
                    }
                    $stretch = [];
                    $until = -1;
                }
                if ($a >= 0) {
                    $stretch[] = $a;
                    $until = max($until, $this->arcs->arcs[$a]['last']);
                }
            }
        }
    }

    /**
     * @param list<list<float>> $n
     * @param list<float>       $b
     */
    private function addEpoch(int $k, array &$n, array &$b): void
    {
        $epoch = $this->epoch($k);
        if (null === $epoch) {
            return;
        }
        [$blocks, $c] = $epoch;
        // What is eliminated: clocks, and the place of a rover that moves.
        $cc = array_fill(0, $c, array_fill(0, $c, 0.0));
        $cb = array_fill(0, $c, 0.0);
        $cx = array_fill(0, $c, []); // with the unknowns, sparse
        foreach ($blocks as [$rows, $weight]) {
            foreach ($rows as $r => [$aR, $wR, $eR]) {
                foreach ($rows as $s => [$aS, $wS, $eS]) {
                    $p = $weight[$r][$s];
                    foreach ($eR as $g => $one) {
                        $cb[$g] += $one * $p * $wS;
                        foreach ($eS as $h => $two) {
                            $cc[$g][$h] += $one * $p * $two;
                        }
                        foreach ($aS as $u => $value) {
                            $cx[$g][$u] = ($cx[$g][$u] ?? 0.0) + $one * $p * $value;
                        }
                    }
                    foreach ($aR as $u => $valueR) {
                        $b[$u] += $valueR * $p * $wS;
                        foreach ($aS as $v => $valueS) {
                            $n[$u][$v] += $valueR * $p * $valueS;
                        }
                    }
                }
            }
        }
        $inverse = Dense::inverse($cc);
        if (null === $inverse) {
            return;
        }
        for ($g = 0; $g < $c; ++$g) {
            for ($h = 0; $h < $c; ++$h) {
                $w = $inverse[$g][$h];
                if (0.0 === $w) {
                    continue;
                }
                foreach ($cx[$g] as $u => $one) {
                    $b[$u] -= $one * $w * $cb[$h];
                    foreach ($cx[$h] as $v => $two) {
                        $n[$u][$v] -= $one * $w * $two;
                    }
                }
            }
        }
    }

    /**
     * The signals of every satellite at an epoch.
     *
     * @return ?array{list<Block>, int} blocks of rows and their weights; how many unknowns of the epoch they have: the place first
     *     where it moves, then clocks
     */
    public function epoch(int $k): ?array
    {
        $blocks = [];
        $clocks = [];
        for ($i = $this->session->epochStart[$k]; $i < $this->session->epochStart[$k + 1]; ++$i) {
            $block = $this->block($i, $clocks);
            if (null !== $block) {
                $blocks[] = $block;
            }
        }

        return [] === $blocks ? null : [$blocks, \count($clocks) + ($this->moves ? 3 : 0)];
    }

    /**
     * The signals of one satellite at one epoch.
     *
     * @param array<string, int> $clocks place of the clock of each signal and system, filled here
     *
     * @return ?Block
     */
    private function block(int $i, array &$clocks): ?array
    {
        $session = $this->session;
        $system = $session->satellite[$i][0];
        $elevation = $this->sights->elevation[$i];
        $computed = $this->sights->computed[$i];
        $wavelength = $session->wavelength[$system];
        $rows = [];
        $variances = [];
        $iono = [];
        $ratio = null === $wavelength[1] ? 1.0 : ($wavelength[1] / $wavelength[0]) ** 2;
        $d = [
            0 => -$this->sights->direction[3 * $i], 1 => -$this->sights->direction[3 * $i + 1], 2 => -$this->sights->direction[3 * $i + 2],
        ];
        foreach ([0, 1] as $band) {
            $a = $this->arcs->of[$band][$i];
            if ($a < 0 || isset($this->leftOut[$a])) {
                continue;
            }
            $code = $session->code[$band][$i];
            $misclosure = $session->phase[$band][$i] - $computed;
            $coefficients = $this->moves ? [] : $d;
            if (isset($this->held[$a])) {
                $misclosure -= (float) $wavelength[$band] * $this->held[$a];
            } else {
                $coefficients[$this->unknown[$a]] = (float) $wavelength[$band];
            }
            $clock = ($this->moves ? 3 : 0) + ($clocks["$system p$band"] ??= \count($clocks));
            $rows[] = [$coefficients, $misclosure, ($this->moves ? $d : []) + [$clock => 1.0], true];
            $variances[] = self::variance(true, $elevation);
            $iono[] = -(0 === $band ? 1.0 : $ratio);
            if (!is_nan($code)) {
                $clock = ($this->moves ? 3 : 0) + ($clocks["$system c$band"] ??= \count($clocks));
                $rows[] = [$this->moves ? [] : $d, $code - $computed, ($this->moves ? $d : []) + [$clock => 1.0], false];
                $variances[] = self::variance(false, $elevation);
                $iono[] = 0 === $band ? 1.0 : $ratio;
            }
        }
        if ([] === $rows) {
            return null;
        }
        // What a satellite's signals have in common: the ionosphere by frequency, and what the model leaves of the troposphere.
        [$sigma, $air] = $this->atmosphere->variances($elevation);
        $covariance = [];
        foreach ($iono as $r => $g) {
            $line = [];
            foreach ($iono as $s => $h) {
                $line[] = ($r === $s ? $variances[$r] ?? 1.0 : 0.0) + $sigma * $g * $h + $air;
            }
            $covariance[] = $line;
        }
        $weight = Dense::inverse($covariance);
        if (null === $weight) {
            return null;
        }

        return [$rows, $weight];
    }
}
