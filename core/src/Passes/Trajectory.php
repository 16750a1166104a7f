<?php

declare(strict_types=1);

namespace Mensura\Passes;

use Mensura\Fault\UnusableInput;

/** Where a vehicle was, row by row. Seconds, metres; times grow. */
final readonly class Trajectory
{
    /** Stations along a pass at most. */
    private const MOST = 20_000;

    /**
     * @param non-empty-list<float> $times
     * @param non-empty-list<float> $e
     * @param non-empty-list<float> $n
     * @param non-empty-list<float> $h
     */
    public function __construct(public array $times, public array $e, public array $n, public array $h)
    {
    }

    /** Plan length, metres. */
    public function length(): float
    {
        $along = $this->along();

        return $along[\count($along) - 1];
    }

    /** @return non-empty-list<float> plan length from the first row to each */
    public function along(): array
    {
        $along = [0.0];
        for ($i = 1, $n = \count($this->times); $i < $n; ++$i) {
            $along[] = $along[$i - 1] + hypot($this->e[$i] - $this->e[$i - 1], $this->n[$i] - $this->n[$i - 1]);
        }

        return $along;
    }

    /** Every row moved by what is added to it. */
    public function corrected(Correction $by): self
    {
        [$e, $n, $h] = [$this->e, $this->n, $this->h];
        foreach ($this->times as $i => $time) {
            [$de, $dn, $dh] = $by->at($time);
            [$e[$i], $n[$i], $h[$i]] = [$e[$i] + $de, $n[$i] + $dn, $h[$i] + $dh];
        }

        return new self($this->times, $e, $n, $h);
    }

    /**
     * Places at 0, every, twice every, ... of the plan length.
     *
     * @return non-empty-list<array{float, float, float, float}> time, e, n, h
     *
     * @throws UnusableInput
     */
    public function everyDistance(float $metres): array
    {
        $stations = [];
        $along = 0.0;
        $last = \count($this->times) - 1;
        for ($i = 0; $i < $last; ++$i) {
            $length = hypot($this->e[$i + 1] - $this->e[$i], $this->n[$i + 1] - $this->n[$i]);
            // What rounding leaves of the length is no reason to miss the last one.
            while ($length > 0.0 && ($at = \count($stations) * $metres) <= $along + $length + ($i + 1 === $last ? 1e-6 : 0.0)) {
                $stations[] = $this->between($i, min(1.0, ($at - $along) / $length));
                self::limit(\count($stations));
            }
            $along += $length;
        }

        return [] === $stations ? [$this->between(0, 0.0)] : $stations;
    }

    /**
     * Places at 0, every, twice every, ... seconds from the first row.
     *
     * @return non-empty-list<array{float, float, float, float}> time, e, n, h
     *
     * @throws UnusableInput
     */
    public function everyTime(float $seconds): array
    {
        $stations = [];
        $last = \count($this->times) - 1;
        self::limit(($this->times[$last] - $this->times[0]) / $seconds);
        for ($k = 0; ($time = $this->times[0] + $k * $seconds) <= $this->times[$last] + 1e-9; ++$k) {
            $i = max(0, min($last - 1, self::before($this->times, $time)));
            $length = 0 === $last ? 0.0 : $this->times[$i + 1] - $this->times[$i];
            $stations[] = $this->between($i, $length > 0.0 ? min(1.0, ($time - $this->times[$i]) / $length) : 0.0);
        }

        return [] === $stations ? [$this->between(0, 0.0)] : $stations;
    }

    /**
     * The last of growing times that is not after one; -1 where all are.
     *
     * @param list<float> $times
     */
    public static function before(array $times, float $time): int
    {
        [$low, $high] = [-1, \count($times)];
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            if ($times[$middle] <= $time) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }

    /** @return array{float, float, float, float} */
    private function between(int $i, float $part): array
    {
        $j = min($i + 1, \count($this->times) - 1);
        $of = static fn (array $v): float => $v[$i] + $part * ($v[$j] - $v[$i]);

        return [$of($this->times), $of($this->e), $of($this->n), $of($this->h)];
    }

    private static function limit(float $count): void
    {
        if ($count > self::MOST) {
            throw new UnusableInput('settings.every', \sprintf('makes more than %d stations along a pass; give a greater one', self::MOST));
        }
    }
}
