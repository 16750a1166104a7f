<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** What was scanned nearer in time to one station than to its neighbours: how much, and an even part of it. */
final class StationPoints
{
    /** Kept of a station at most; of twice as many every other goes. */
    private const MOST = 4_000;

    /** @var list<int> */
    private array $seen;
    /** @var list<int> */
    private array $step;
    /** @var list<list<array{float, float, float, float}>> */
    private array $kept;

    /** @param non-empty-list<float> $times of the stations */
    public function __construct(private readonly array $times)
    {
        $n = \count($times);
        $this->seen = array_fill(0, $n, 0);
        $this->step = array_fill(0, $n, 1);
        $this->kept = array_fill(0, $n, []);
    }

    /**
     * @param list<float> $t
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     */
    public function take(array $t, array $x, array $y, array $z): void
    {
        $times = $this->times;
        $last = \count($times) - 1;
        $k = 0;
        foreach ($t as $i => $time) {
            // One after the other as a rule: the station of the point before is tried first.
            if (($k > 0 && 2.0 * $time < $times[$k - 1] + $times[$k]) || ($k < $last && 2.0 * $time >= $times[$k] + $times[$k + 1])) {
                $k = max(0, Trajectory::before($times, $time));
                if ($k < $last && 2.0 * $time >= $times[$k] + $times[$k + 1]) {
                    ++$k;
                }
            }
            if (0 === $this->seen[$k]++ % $this->step[$k]) {
                $this->kept[$k][] = [$time, $x[$i], $y[$i], $z[$i]];
                if (\count($this->kept[$k]) >= 2 * self::MOST) {
                    $isEven = static fn (int $j): bool => 0 === $j % 2;
                    $this->kept[$k] = array_values(array_filter($this->kept[$k], $isEven, \ARRAY_FILTER_USE_KEY));
                    $this->step[$k] *= 2;
                }
            }
        }
    }

    public function count(int $station): int
    {
        return $this->seen[$station];
    }

    /** @return array{list<float>, list<float>, list<float>, list<float>} time, e, n, h */
    public function of(int $station): array
    {
        $columns = [[], [], [], []];
        foreach ($this->kept[$station] as [$columns[0][], $columns[1][], $columns[2][], $columns[3][]]) {
        }

        return $columns;
    }
}
