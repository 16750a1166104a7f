<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/**
 * Whether the parts of a static session agree about the place: it is cut into blocks of time, each solved for a shift of its
 * own with the ambiguities as the whole session has them.
 */
final class Steadiness
{
    private const BLOCKS = 6;

    /** Blocks of fewer epochs say nothing. */
    private const LEAST = 4;

    /** What blocks may lie apart by multipath and weather, metres and parts of the line: plan, up. */
    private const ALLOWED = [[0.012, 1.5e-6], [0.030, 4.0e-6]];

    /** And by their own precision, in standard deviations. */
    private const SIGMAS = 4.0;

    /** Greatest distance of two blocks, metres. */
    public float $plan = 0.0;
    public float $up = 0.0;

    /** Mean square of the blocks' shifts over what their formal precision lets expect. */
    public float $factor = 1.0;

    /** @var list<array{array{float, float, float}, list<list<float>>}> shift and covariance of each block, east, north, up */
    private array $blocks = [];

    /**
     * @param list<float>                $x  shift and ambiguities of the whole session
     * @param array{float, float, float} $at place on the earth
     */
    public function __construct(Session $session, FloatSolution $float, array $x, array $at)
    {
        $horizon = Horizon::of($at);
        $count = \count($session->times);
        $size = max(self::LEAST, (int) ceil($count / self::BLOCKS));
        for ($first = 0; $first + self::LEAST <= $count; $first += $size) {
            $n = array_fill(0, 3, [0.0, 0.0, 0.0]);
            $b = [0.0, 0.0, 0.0];
            for ($k = $first; $k < min($count, $first + $size); ++$k) {
                self::add($float->epoch($k), $x, $n, $b);
            }
            $q = Dense::inverse($n);
            if (null === $q) {
                continue;
            }
            $d = array_map(static fn (array $row): float => $row[0] * $b[0] + $row[1] * $b[1] + $row[2] * $b[2], $q);
            $this->blocks[] = [$horizon->components($d[0] ?? 0.0, $d[1] ?? 0.0, $d[2] ?? 0.0), $horizon->turned($q)];
        }
        $squares = 0.0;
        foreach ($this->blocks as $i => [$d, $q]) {
            for ($c = 0; $c < 3; ++$c) {
                $squares += $d[$c] ** 2 / max(1e-12, $q[$c][$c]);
            }
            foreach (\array_slice($this->blocks, 0, $i) as [$e]) {
                $this->plan = max($this->plan, hypot($d[0] - $e[0], $d[1] - $e[1]));
                $this->up = max($this->up, abs($d[2] - $e[2]));
            }
        }
        if (\count($this->blocks) > 1) {
            $this->factor = $squares / (3.0 * (\count($this->blocks) - 1));
        }
    }

    /** @param float $length of the line, metres */
    public function isMoved(float $length): bool
    {
        foreach ($this->blocks as $i => [$d, $q]) {
            foreach (\array_slice($this->blocks, 0, $i) as [$e, $p]) {
                $plan = hypot($d[0] - $e[0], $d[1] - $e[1]);
                $planSigma = sqrt($q[0][0] + $q[1][1] + $p[0][0] + $p[1][1]);
                $up = abs($d[2] - $e[2]);
                $upSigma = sqrt($q[2][2] + $p[2][2]);
                if ($plan > max(self::ALLOWED[0][0] + self::ALLOWED[0][1] * $length, self::SIGMAS * $planSigma)
                    || $up > max(self::ALLOWED[1][0] + self::ALLOWED[1][1] * $length, self::SIGMAS * $upSigma)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Normal equations of the shift in an epoch, its clocks eliminated.
     *
     * @param ?array{list<array{list<array{array<int, float>, float, array<int, float>, bool}>, list<list<float>>}>, int} $epoch
     * @param list<float>       $x
     * @param list<list<float>> $n
     * @param list<float>       $b
     */
    private static function add(?array $epoch, array $x, array &$n, array &$b): void
    {
        if (null === $epoch) {
            return;
        }
        [$blocks, $c] = $epoch;
        $size = 3 + $c;
        $full = array_fill(0, $size, array_fill(0, $size, 0.0));
        $right = array_fill(0, $size, 0.0);
        foreach ($blocks as [$rows, $weight]) {
            $w = $coefficients = [];
            foreach ($rows as $r => [$a, $misclosure, $clock]) {
                foreach ($a as $u => $value) {
                    $misclosure -= $value * $x[$u];
                }
                $w[$r] = $misclosure;
                $coefficients[$r] = [0 => $a[0], 1 => $a[1], 2 => $a[2]];
                foreach ($clock as $g => $one) {
                    $coefficients[$r][3 + $g] = $one;
                }
            }
            foreach ($rows as $r => $unused) {
                foreach ($rows as $s => $unused2) {
                    $p = $weight[$r][$s];
                    foreach ($coefficients[$r] as $u => $one) {
                        $right[$u] += $one * $p * $w[$s];
                        foreach ($coefficients[$s] as $v => $two) {
                            $full[$u][$v] += $one * $p * $two;
                        }
                    }
                }
            }
        }
        $clocks = Dense::inverse(array_map(static fn (array $row): array => \array_slice($row, 3), \array_slice($full, 3)));
        if (null === $clocks) {
            return;
        }
        for ($i = 0; $i < 3; ++$i) {
            $gain = [];
            for ($g = 0; $g < $c; ++$g) {
                $sum = 0.0;
                for ($h = 0; $h < $c; ++$h) {
                    $sum += $full[$i][3 + $h] * $clocks[$h][$g];
                }
                $gain[$g] = $sum;
            }
            $b[$i] += $right[$i];
            for ($g = 0; $g < $c; ++$g) {
                $b[$i] -= $gain[$g] * $right[3 + $g];
            }
            for ($j = 0; $j < 3; ++$j) {
                $n[$i][$j] += $full[$i][$j];
                for ($g = 0; $g < $c; ++$g) {
                    $n[$i][$j] -= $gain[$g] * $full[3 + $g][$j];
                }
            }
        }
    }
}
