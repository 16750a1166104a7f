<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/** Positions of a rover epoch by epoch from differences of codes, and their weighted mean. */
final class CodeTrack
{
    /** A code that misses by so many standard deviations is left out. */
    private const OUTLIER = 4.0;

    /** What multipath and reflections leave in a mean however long, metres in plan and up. */
    private const FLOOR = [0.10, 0.15];

    private float $squares = 0.0;
    private int $redundancy = 0;
    private float $residualSquares = 0.0;
    private int $residualCount = 0;

    /** @var array<string, int> epochs in which a satellite was used */
    private array $used = [];

    public function __construct(private readonly Session $session, private readonly Sights $sights, private readonly float $mask)
    {
    }

    /**
     * @param array{float, float, float} $rover where the sights were computed
     *
     * @return ?BaselineSolution null when no epoch has four satellites
     */
    public function solve(array $rover): ?BaselineSolution
    {
        $epochs = [];
        foreach ($this->session->times as $k => $time) {
            $epoch = $this->epoch($k);
            if (null !== $epoch) {
                $epochs[$k] = $epoch;
            }
        }
        if ([] === $epochs) {
            return null;
        }
        $factor = $this->redundancy > 0 ? max(0.05, $this->squares / $this->redundancy) : 1.0;
        $n = array_fill(0, 3, [0.0, 0.0, 0.0]);
        $b = [0.0, 0.0, 0.0];
        $solution = new BaselineSolution();
        $solution->solution = BaselineSolution::CODE;
        foreach ($epochs as $k => [$shift, $q, $count]) {
            $q = array_map(static fn (array $row): array => array_map(static fn (float $v): float => $v * $factor, $row), $q);
            $p = Dense::inverse($q);
            for ($i = 0; null !== $p && $i < 3; ++$i) {
                for ($j = 0; $j < 3; ++$j) {
                    $n[$i][$j] += $p[$i][$j];
                    $b[$i] += $p[$i][$j] * $shift[$j];
                }
            }
            $solution->track[] = [
                'time' => $this->session->times[$k],
                'position' => [$rover[0] + $shift[0], $rover[1] + $shift[1], $rover[2] + $shift[2]],
                'solution' => BaselineSolution::CODE, 'satellites' => $count, 'covariance' => $q,
            ];
        }
        $inverse = Dense::inverse($n) ?? [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]];
        $mean = [];
        foreach ($inverse as $row) {
            $mean[] = $row[0] * $b[0] + $row[1] * $b[1] + $row[2] * $b[2];
        }
        $solution->rover = [$rover[0] + $mean[0], $rover[1] + $mean[1], $rover[2] + $mean[2]];
        $solution->covariance = Horizon::of($solution->rover)->widened($inverse, 1.0, ...self::FLOOR);
        $solution->rms = $this->residualCount > 0 ? sqrt(2.0 * $this->residualSquares / $this->residualCount) : 0.0;
        $solution->epochs = \count($epochs);
        $solution->start = $solution->track[0]['time'];
        $solution->end = $solution->track[$solution->epochs - 1]['time'];
        foreach (array_unique($this->session->satellite) as $satellite) {
            $count = $this->used[$satellite] ?? 0;
            $solution->satellites[$satellite] = ['epochs' => $count, 'slips' => 0, 'used' => $count > 0];
        }
        ksort($solution->satellites);

        return $solution;
    }

    /** @return ?array{array{float, float, float}, list<list<float>>, int} shift, covariance, satellites */
    private function epoch(int $k): ?array
    {
        $rows = [];
        for ($i = $this->session->epochStart[$k]; $i < $this->session->epochStart[$k + 1]; ++$i) {
            $w = $this->session->code[0][$i] - $this->sights->computed[$i];
            if ($this->sights->elevation[$i] >= $this->mask && !is_nan($w)) {
                $rows[$i] = [$w, FloatSolution::variance(false, $this->sights->elevation[$i])];
            }
        }
        while (true) {
            $systems = [];
            foreach ($rows as $i => $unused) {
                $systems[$this->session->satellite[$i][0]] ??= 3 + \count($systems);
            }
            $size = 3 + \count($systems);
            if (\count($rows) < $size || \count($rows) < 4) {
                return null;
            }
            $n = array_fill(0, $size, array_fill(0, $size, 0.0));
            $b = array_fill(0, $size, 0.0);
            foreach ($rows as $i => [$w, $variance]) {
                $a = $this->coefficients($i, $systems);
                foreach ($a as $u => $one) {
                    $b[$u] += $one * $w / $variance;
                    foreach ($a as $v => $two) {
                        $n[$u][$v] += $one * $two / $variance;
                    }
                }
            }
            $q = Dense::inverse($n);
            if (null === $q) {
                return null;
            }
            $x = [];
            foreach ($q as $row) {
                $sum = 0.0;
                foreach ($row as $j => $value) {
                    $sum += $value * $b[$j];
                }
                $x[] = $sum;
            }
            $worst = null;
            $largest = self::OUTLIER;
            $squares = $plain = 0.0;
            foreach ($rows as $i => [$w, $variance]) {
                $v = $w;
                foreach ($this->coefficients($i, $systems) as $u => $one) {
                    $v -= $one * $x[$u];
                }
                $squares += $v * $v / $variance;
                $plain += $v * $v;
                if (abs($v) / sqrt($variance) > $largest) {
                    $largest = abs($v) / sqrt($variance);
                    $worst = $i;
                }
            }
            if (null !== $worst && \count($rows) > $size + 1) {
                unset($rows[$worst]);
                continue;
            }
            $this->squares += $squares;
            $this->redundancy += \count($rows) - $size;
            $this->residualSquares += $plain;
            $this->residualCount += \count($rows);
            foreach ($rows as $i => $unused) {
                $satellite = $this->session->satellite[$i];
                $this->used[$satellite] = ($this->used[$satellite] ?? 0) + 1;
            }

            return [
                [$x[0], $x[1], $x[2]],
                array_map(static fn (array $row): array => \array_slice($row, 0, 3), \array_slice($q, 0, 3)),
                \count($rows),
            ];
        }
    }

    /**
     * @param array<string, int> $systems
     *
     * @return array<int, float>
     */
    private function coefficients(int $i, array $systems): array
    {
        return [
            0 => -$this->sights->direction[3 * $i], 1 => -$this->sights->direction[3 * $i + 1], 2 => -$this->sights->direction[3 * $i + 2],
            $systems[$this->session->satellite[$i][0]] => 1.0,
        ];
    }
}
