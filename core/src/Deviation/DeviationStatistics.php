<?php

declare(strict_types=1);

namespace Mensura\Deviation;

use Mensura\Fault\UnusableInput;

/** What deviations amount to. Metres; what lies outside the reference, or beyond the limit, does not count. */
final class DeviationStatistics
{
    private const WORST = 20;

    public int $measured;
    public int $used = 0;
    public int $beyond = 0;
    public int $outside = 0;
    public ?float $mean = null;
    public ?float $rms = null;
    public ?float $sd = null;
    public ?float $min = null;
    public ?float $max = null;
    public ?float $median = null;
    /** Least size of what lies beyond the limit. */
    public ?float $nearestBeyond = null;

    /** @var list<array{from: ?float, to: ?float, count: int, percent: float}> from <= deviation < to */
    public array $bands = [];

    /** @var list<int> points with the greatest deviations by size, of equal ones the first */
    public array $worst = [];

    /**
     * @param list<float> $deviations NAN outside
     * @param ?float      $limit      greatest size that counts
     * @param list<float> $edges      of the bands, growing
     *
     * @throws UnusableInput where bands do not grow
     */
    public function __construct(array $deviations, ?float $limit = null, array $edges = [])
    {
        foreach ($edges as $k => $edge) {
            if ($k > 0 && $edge <= $edges[$k - 1]) {
                throw new UnusableInput('--bands', \sprintf('limits grow strictly; %s does not follow %s', $edge, $edges[$k - 1]));
            }
        }
        $this->measured = \count($deviations);
        $kept = [];
        $counts = array_fill(0, \count($edges) + 1, 0);
        foreach ($deviations as $i => $d) {
            if (is_nan($d)) {
                ++$this->outside;
            } elseif (null !== $limit && abs($d) > $limit) {
                ++$this->beyond;
                $this->nearestBeyond = min($this->nearestBeyond ?? \INF, abs($d));
            } else {
                $kept[$i] = $d;
                ++$counts[self::band($edges, $d)];
            }
        }
        $this->used = \count($kept);
        if (\count($edges) > 0) {
            foreach ($counts as $k => $count) {
                $percent = $this->used > 0 ? 100.0 * $count / $this->used : 0.0;
                $this->bands[] = ['from' => $edges[$k - 1] ?? null, 'to' => $edges[$k] ?? null, 'count' => $count, 'percent' => $percent];
            }
        }
        if ([] !== $kept) {
            $this->moments($kept);
        }
    }

    /** @param non-empty-array<int, float> $kept */
    private function moments(array $kept): void
    {
        $sum = $squares = 0.0;
        foreach ($kept as $d) {
            $sum += $d;
            $squares += $d * $d;
        }
        $this->mean = $sum / $this->used;
        $this->rms = sqrt($squares / $this->used);
        $off = 0.0;
        foreach ($kept as $d) {
            $off += ($d - $this->mean) ** 2;
        }
        $this->sd = $this->used > 1 ? sqrt($off / ($this->used - 1)) : null;
        $sorted = array_values($kept);
        sort($sorted);
        $this->min = $sorted[0];
        $this->max = $sorted[$this->used - 1];
        $this->median = 0.5 * ($sorted[intdiv($this->used - 1, 2)] + $sorted[intdiv($this->used, 2)]);
        // The greatest by size stand at both ends.
        $low = 0;
        $high = $this->used - 1;
        while ($low <= $high && $low + $this->used - 1 - $high < self::WORST) {
            if (-$sorted[$low] >= $sorted[$high]) {
                ++$low;
            } else {
                --$high;
            }
        }
        $from = $low > 0 ? $sorted[$low - 1] : -\INF;
        $to = $high < $this->used - 1 ? $sorted[$high + 1] : \INF;
        $sizes = [];
        foreach ($kept as $i => $d) {
            if ($d <= $from || $d >= $to) {
                $sizes[$i] = abs($d);
            }
        }
        arsort($sizes); // stable: of equal ones the first stays first
        $this->worst = \array_slice(array_keys($sizes), 0, self::WORST);
    }

    /**
     * Number of the band a deviation lies in, from the lowest up.
     *
     * @param list<float> $edges growing
     */
    public static function band(array $edges, float $d): int
    {
        $low = 0;
        $high = \count($edges);
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($d >= $edges[$middle]) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
