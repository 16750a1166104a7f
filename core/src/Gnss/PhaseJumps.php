<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/**
 * Jumps of phases between two epochs of a rover that moves: the changes of all phases determine its step and its clock's by
 * least squares. Where one does not agree, the satellite without which all others agree best is taken out, until the rest agrees
 * (common practice for time-differenced phases; leaving one out instead of trusting the largest residual, which a slip of a
 * satellite with much leverage hands on to its neighbours).
 */
final class PhaseJumps
{
    /** Metres a change may stand off the others for a satellite above 30 degrees; lower ones are noisier with the sine. */
    private const JUMP = 0.05;

    /** Satellites that must be left over the four unknowns, so that one of them is known to be wrong. */
    private const LEAST = 2;

    /** @var array<int, float> by row of the session: what its changes count for, at most 1 */
    private array $share = [];

    /**
     * @param list<int>   $row       of the session, of each change
     * @param list<int>   $band      likewise
     * @param list<float> $change    of a phase less what is computed for it, metres
     * @param list<float> $direction unit vectors towards the satellites, three a row of the session
     * @param list<float> $elevation radians, a row of the session
     */
    public function __construct(
        private readonly array $row, private readonly array $band, private readonly array $change, private readonly array $direction,
        array $elevation,
    ) {
        foreach ($row as $i) {
            $this->share[$i] = min(1.0, 2.0 * sin($elevation[$i]));
        }
    }

    /** @return array<int, array<int, true>> by band and row */
    public function found(): array
    {
        $jumped = [];
        $out = [];
        while (\count($this->share) - \count($out) >= 4 + self::LEAST) {
            $step = $this->step($out)[0];
            if (null === $step || $this->most($step, $out) <= self::JUMP) {
                break;
            }
            $least = \INF;
            $worst = null;
            $without = $step;
            foreach ($this->share as $i => $share) {
                if (isset($out[$i])) {
                    continue;
                }
                [$other, $squares] = $this->step($out + [$i => true]);
                if (null !== $other && $squares < $least) {
                    [$worst, $least, $without] = [$i, $squares, $other];
                }
            }
            if (null === $worst) {
                break;
            }
            $out[$worst] = true;
            foreach ($this->row as $j => $i) {
                if ($i === $worst && $this->off($j, $without) > self::JUMP) {
                    $jumped[$this->band[$j]][$i] = true;
                }
            }
        }

        return $jumped;
    }

    /**
     * @param array<int, true> $out rows left out
     *
     * @return array{?array{float, float, float, float}, float} step and clock, metres; sum of squares
     */
    private function step(array $out): array
    {
        $n = array_fill(0, 4, [0.0, 0.0, 0.0, 0.0]);
        $b = [0.0, 0.0, 0.0, 0.0];
        foreach ($this->row as $j => $i) {
            if (isset($out[$i])) {
                continue;
            }
            $a = [-$this->direction[3 * $i], -$this->direction[3 * $i + 1], -$this->direction[3 * $i + 2], 1.0];
            $p = $this->share[$i] ** 2;
            for ($r = 0; $r < 4; ++$r) {
                $b[$r] += $p * $a[$r] * $this->change[$j];
                for ($c = 0; $c < 4; ++$c) {
                    $n[$r][$c] += $p * $a[$r] * $a[$c];
                }
            }
        }
        $q = Dense::inverse($n);
        if (null === $q) {
            return [null, \INF];
        }
        $x = [0.0, 0.0, 0.0, 0.0];
        for ($r = 0; $r < 4; ++$r) {
            $x[$r] = $q[$r][0] * $b[0] + $q[$r][1] * $b[1] + $q[$r][2] * $b[2] + $q[$r][3] * $b[3];
        }
        $squares = 0.0;
        foreach ($this->row as $j => $i) {
            $squares += isset($out[$i]) ? 0.0 : $this->off($j, $x) ** 2;
        }

        return [$x, $squares];
    }

    /** @param array{float, float, float, float} $step */
    private function off(int $j, array $step): float
    {
        $i = $this->row[$j];

        return $this->share[$i] * abs($this->change[$j] - $step[3] + $this->direction[3 * $i] * $step[0]
            + $this->direction[3 * $i + 1] * $step[1] + $this->direction[3 * $i + 2] * $step[2]);
    }

    /**
     * @param array{float, float, float, float} $step
     * @param array<int, true>                  $out
     */
    private function most(array $step, array $out): float
    {
        $most = 0.0;
        foreach ($this->row as $j => $i) {
            $most = isset($out[$i]) ? $most : max($most, $this->off($j, $step));
        }

        return $most;
    }
}
