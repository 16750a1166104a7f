<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\Statistics\Distribution;

/**
 * Where a static receiver was, from its places epoch by epoch: stretches in which it stood, and the moments between at which it
 * left one place for another.
 *
 * Binary segmentation (Scott and Knott 1974) with the test of a shift of the mean of three components. Noise is taken from the
 * differences of neighbours, which know nothing of shifts; its correlation in time lowers what an epoch counts.
 */
final class ChangePoints
{
    /** A stretch shorter than this is a way from one place to the next, seconds. */
    private const SHORTEST = 180.0;

    /** Or fewer epochs than this. */
    private const FEWEST = 6;

    /** A shift smaller than this is that of multipath and weather, metres: plan, up. */
    private const SMALLEST = [0.006, 0.015];

    /** How sure a change must be to be proposed. */
    private const CONFIDENCE = 0.999;

    /** @var list<Stand> in time */
    public array $stands = [];

    /** @var list<Move> between them */
    public array $moves = [];

    /** @var list<float> standard deviation of one epoch by its neighbours, east, north, up, metres */
    public array $noise = [0.0, 0.0, 0.0];

    /** @var list<list<float>> east, north, up */
    private array $series;

    /** @var list<list<float>> running sums of each component, with a nought before */
    private array $sums = [];

    /** Epochs that count as one. */
    private float $memory = 1.0;

    /**
     * @param list<float> $times seconds, growing
     * @param list<float> $east  metres
     * @param list<float> $north likewise
     * @param list<float> $up    likewise
     */
    public function __construct(private readonly array $times, array $east, array $north, array $up)
    {
        $this->series = [$east, $north, $up];
        $count = \count($times);
        if ($count < 2 * self::FEWEST) {
            $this->stands = 0 === $count ? [] : [$this->stand(0, $count)];

            return;
        }
        $this->measureNoise();
        foreach ($this->series as $c => $values) {
            $sum = 0.0;
            $this->sums[$c] = [0.0];
            foreach ($values as $v) {
                $this->sums[$c][] = $sum += $v;
            }
        }
        $this->settle($this->segments(0, $count));
    }

    /** By neighbours, robustly; and how many epochs it takes until errors are new. */
    private function measureNoise(): void
    {
        $memory = 1.0;
        $noise = [];
        foreach ($this->series as $values) {
            $differences = [];
            foreach ($values as $k => $v) {
                if ($k > 0) {
                    $differences[] = abs($v - $values[$k - 1]);
                }
            }
            sort($differences);
            // Median of magnitudes to standard deviation of a normal distribution; two epochs make a difference.
            $sd = max(0.0004, 1.4826 * $differences[intdiv(\count($differences), 2)] / \M_SQRT2);
            // Residuals about a running median tell how long an error lasts.
            $rest = self::rest($values);
            $product = $square = 0.0;
            foreach ($rest as $k => $r) {
                $r = max(-4.0 * $sd, min(4.0 * $sd, $r));
                $rest[$k] = $r;
                $square += $r * $r;
                $product += $k > 0 ? $r * $rest[$k - 1] : 0.0;
            }
            $rho = $square > 0.0 ? max(0.0, min(0.9, $product / $square)) : 0.0;
            $noise[] = $sd / sqrt(max(0.2, 1.0 - $rho));
            $memory = max($memory, (1.0 + $rho) / (1.0 - $rho));
        }
        $this->noise = $noise;
        $this->memory = $memory;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> less the median of the 21 about each
     */
    private static function rest(array $values): array
    {
        $rest = [];
        $count = \count($values);
        foreach ($values as $k => $v) {
            $window = \array_slice($values, max(0, min($k - 10, $count - 21)), 21);
            sort($window);
            $rest[] = $v - $window[intdiv(\count($window), 2)];
        }

        return $rest;
    }

    /**
     * Cuts as long as a cut is sure.
     *
     * @return list<array{int, int}> first and one past the last
     */
    private function segments(int $from, int $to): array
    {
        $best = 0.0;
        $at = 0;
        for ($k = $from + 3; $k <= $to - 3; ++$k) {
            $t = $this->statistic($from, $k, $to);
            if ($t > $best) {
                [$best, $at] = [$t, $k];
            }
        }
        if (0 === $at || $this->confidence($best, $to - $from) < self::CONFIDENCE) {
            return [[$from, $to]];
        }

        return [...$this->segments($from, $at), ...$this->segments($at, $to)];
    }

    /** Chi-square with three degrees of freedom of the shift at a cut. */
    private function statistic(int $from, int $cut, int $to): float
    {
        $a = $cut - $from;
        $b = $to - $cut;
        $weight = 1.0 / $this->memory / (1.0 / $a + 1.0 / $b);
        $t = 0.0;
        for ($c = 0; $c < 3; ++$c) {
            $shift = $this->mean($c, $cut, $to) - $this->mean($c, $from, $cut);
            $t += $weight * ($shift / $this->noise[$c]) ** 2;
        }

        return $t;
    }

    /** That such a shift is no chance, with as many places tried as there are epochs. */
    private function confidence(float $statistic, int $tried): float
    {
        return max(0.0, 1.0 - $tried * (1.0 - Distribution::chiSquareCdf($statistic, 3.0)));
    }

    private function mean(int $c, int $from, int $to): float
    {
        return ($this->sums[$c][$to] - $this->sums[$c][$from]) / max(1, $to - $from);
    }

    /**
     * Short pieces are ways; neighbours that lie at one place are one.
     *
     * @param list<array{int, int}> $segments
     */
    private function settle(array $segments): void
    {
        $long = array_values(array_filter(
            $segments,
            fn (array $s): bool => $s[1] - $s[0] >= self::FEWEST && $this->times[$s[1] - 1] - $this->times[$s[0]] >= self::SHORTEST,
        ));
        if ([] === $long) {
            $long = [[0, \count($this->times)]];
        }
        $joined = [$long[0]];
        foreach (\array_slice($long, 1) as $s) {
            $last = \count($joined) - 1;
            [$plan, $up] = $this->between($joined[$last], $s);
            if ($plan < self::SMALLEST[0] && $up < self::SMALLEST[1]) {
                $joined[$last][1] = $s[1];
            } else {
                $joined[] = $s;
            }
        }
        if (1 === \count($joined)) {
            $joined = [[0, \count($this->times)]]; // nothing to be set apart
        }
        foreach ($joined as $i => $s) {
            $this->stands[] = $this->stand(...$s);
            if (0 === $i) {
                continue;
            }
            $before = $joined[$i - 1];
            $shift = [];
            for ($c = 0; $c < 3; ++$c) {
                $shift[] = $this->mean($c, ...$s) - $this->mean($c, ...$before);
            }
            $n = 1.0 / $this->memory / (1.0 / ($before[1] - $before[0]) + 1.0 / ($s[1] - $s[0]));
            $t = 0.0;
            foreach ($shift as $c => $d) {
                $t += $n * ($d / $this->noise[$c]) ** 2;
            }
            $this->moves[] = new Move(
                $this->times[$before[1] - 1], $this->times[$s[0]], [$shift[0], $shift[1], $shift[2]],
                $this->confidence($t, \count($this->times)),
            );
        }
    }

    /**
     * @param array{int, int} $a
     * @param array{int, int} $b
     *
     * @return array{float, float} metres in plan and up
     */
    private function between(array $a, array $b): array
    {
        $d = [];
        for ($c = 0; $c < 3; ++$c) {
            $d[] = $this->mean($c, ...$b) - $this->mean($c, ...$a);
        }

        return [hypot($d[0], $d[1]), abs($d[2])];
    }

    private function stand(int $from, int $to): Stand
    {
        $mean = $square = [0.0, 0.0, 0.0];
        $count = $to - $from;
        foreach ($this->series as $c => $values) {
            for ($k = $from; $k < $to; ++$k) {
                $mean[$c] += $values[$k] / $count;
            }
            for ($k = $from; $k < $to; ++$k) {
                $square[$c] += ($values[$k] - $mean[$c]) ** 2 / max(1, $count - 1);
            }
        }

        return new Stand(
            $this->times[$from], $this->times[$to - 1], $count, [$mean[0], $mean[1], $mean[2]], sqrt($square[0] + $square[1]),
            sqrt($square[2]),
        );
    }
}
