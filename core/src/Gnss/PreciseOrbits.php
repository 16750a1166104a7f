<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Orbits and clocks at equal steps of time, as SP3 files hold them: positions by a polynomial through the ten nearest, in the
 * frame of the instant asked for (common practice: an order of nine to eleven is good to millimetres at 15 minutes), clocks
 * straight between neighbours.
 */
final class PreciseOrbits
{
    private const POINTS = 10;
    private const ROTATION = 7.2921151467e-5;

    private ?GpsTime $origin = null;

    /** @var array<string, list<array{float, float, float, float, ?float}>> seconds since the origin, x, y, z in metres, clock in seconds */
    private array $points = [];

    /** @var array<string, bool> */
    private array $sorted = [];

    public function add(string $satellite, GpsTime $time, float $x, float $y, float $z, ?float $clock): void
    {
        $this->origin ??= $time;
        $this->points[$satellite][] = [$time->since($this->origin), $x, $y, $z, $clock];
        unset($this->sorted[$satellite]);
    }

    /** @return list<string> */
    public function satellites(): array
    {
        return array_map(strval(...), array_keys($this->points));
    }

    /** @return list<float> instants of the table, seconds since the first of GPS time */
    public function instants(): array
    {
        $all = [];
        foreach ($this->points as $points) {
            foreach ($points as [$t]) {
                $all[(string) $t] = $t + ($this->origin?->sinceEpoch() ?? 0.0);
            }
        }
        sort($all);

        return $all;
    }

    /** @return ?array{float, float, float, ?float} x, y, z; clock; null outside the table or in a gap of it */
    public function at(string $satellite, GpsTime $time): ?array
    {
        $points = $this->points[$satellite] ?? [];
        $count = \count($points);
        if ($count < self::POINTS || null === $this->origin) {
            return null;
        }
        if (!isset($this->sorted[$satellite])) {
            usort($points, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $this->points[$satellite] = $points;
            $this->sorted[$satellite] = true;
        }
        $t = $time->since($this->origin);
        $low = 0;
        $high = $count - 1;
        while ($high - $low > 1) {
            $middle = intdiv($low + $high, 2);
            $points[$middle][0] <= $t ? $low = $middle : $high = $middle;
        }
        $step = $points[$high][0] - $points[$low][0];
        if ($t < $points[0][0] || $t > $points[$count - 1][0]) {
            return null;
        }
        $first = max(0, min($count - self::POINTS, $low - intdiv(self::POINTS, 2) + 1));
        if ($points[$first + self::POINTS - 1][0] - $points[$first][0] > 1.5 * (self::POINTS - 1) * $step) {
            return null;
        }
        $x = $y = $z = 0.0;
        for ($i = $first; $i < $first + self::POINTS; ++$i) {
            $weight = 1.0;
            for ($j = $first; $j < $first + self::POINTS; ++$j) {
                if ($i !== $j) {
                    $weight *= ($t - $points[$j][0]) / ($points[$i][0] - $points[$j][0]);
                }
            }
            // Each point in the axes the earth has at the instant asked for.
            $turn = self::ROTATION * ($points[$i][0] - $t);
            $c = cos($turn);
            $s = sin($turn);
            $x += $weight * ($c * $points[$i][1] - $s * $points[$i][2]);
            $y += $weight * ($s * $points[$i][1] + $c * $points[$i][2]);
            $z += $weight * $points[$i][3];
        }
        $one = $points[$low][4];
        $two = $points[$high][4];
        $clock = null === $one || null === $two ? null : $one + ($two - $one) * ($t - $points[$low][0]) / $step;

        return [$x, $y, $z, $clock];
    }
}
