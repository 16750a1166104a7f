<?php

declare(strict_types=1);

namespace Mensura\Gnss;

use Mensura\LinearAlgebra\Dense;

/** Position and clock of one receiver at one epoch from its codes, by least squares: a clock for every system. */
final readonly class SinglePoint
{
    private const ITERATIONS = 12;

    /** Rejects a code that misses by more than so many times the others, and this, metres. */
    private const OUTLIER = 30.0;

    /**
     * @param ?array{float, float, float, float, float, float, float, float} $klobuchar
     */
    public function __construct(private Orbits $orbits, private ?array $klobuchar)
    {
    }

    /**
     * @param list<string>                 $satellites
     * @param list<float>                  $codes   metres
     * @param ?array{float, float, float}  $near    where the receiver is, about
     * @param float                        $mask    radians
     *
     * @return ?array{array{float, float, float}, float, int} position, receiver clock ahead of GPS time in seconds, satellites used;
     *     null with fewer than four
     */
    public function solve(GpsTime $time, array $satellites, array $codes, ?array $near, float $mask = 0.1): ?array
    {
        $position = $near ?? [0.0, 0.0, 0.0];
        $clock = 0.0;
        $left = [];
        $used = 0;
        for ($k = 0; $k < self::ITERATIONS; ++$k) {
            $systems = [];
            $rows = [];
            $isPlaced = hypot($position[0], hypot($position[1], $position[2])) > 6e6;
            $place = $isPlaced ? Horizon::of($position) : null;
            $troposphere = null === $place ? null : new Troposphere($place->latitude, $place->height);
            foreach ($satellites as $i => $satellite) {
                if (isset($left[$i]) || is_nan($codes[$i])) {
                    continue;
                }
                $s = $this->orbits->received($satellite, $time->plus(-$clock), $codes[$i] - Signal::LIGHT * $clock);
                if (null === $s) {
                    continue;
                }
                $dx = $s[0] - $position[0];
                $dy = $s[1] - $position[1];
                $dz = $s[2] - $position[2];
                $range = sqrt($dx * $dx + $dy * $dy + $dz * $dz);
                $delay = 0.0;
                $weight = 1.0;
                if (null !== $place && null !== $troposphere) {
                    [$azimuth, $elevation] = $place->look($dx, $dy, $dz);
                    if ($elevation < $mask) {
                        continue;
                    }
                    $delay = $troposphere->delay($elevation) + (null === $this->klobuchar ? 0.0
                        : Klobuchar::delay($this->klobuchar, $place->latitude, $place->longitude, $azimuth, $elevation, $time->seconds));
                    $weight = sin($elevation) ** 2;
                }
                $system = $satellite[0];
                $systems[$system] ??= \count($systems);
                $group = Signal::LIGHT * $this->orbits->groupDelay($satellite, $time);
                $rows[$i] = [
                    -$dx / $range, -$dy / $range, -$dz / $range, $systems[$system],
                    $codes[$i] - $range - $delay + Signal::LIGHT * $s[3] - $group, $weight,
                ];
            }
            $count = 3 + \count($systems);
            $used = \count($rows);
            if ($used < $count) {
                return null;
            }
            $solved = self::solved($rows, $count);
            if (null === $solved) {
                return null;
            }
            $shift = $solved;
            $position = [$position[0] + $shift[0], $position[1] + $shift[1], $position[2] + $shift[2]];
            $clock = $shift[3] / Signal::LIGHT;
            $moved = sqrt($shift[0] ** 2 + $shift[1] ** 2 + $shift[2] ** 2);
            if ($moved > 1e-3 || !$isPlaced) {
                continue;
            }
            $worst = self::worst($rows, $shift);
            if (null === $worst || $used <= $count) {
                return [$position, $clock, $used];
            }
            $left[$worst] = true;
        }

        return $used >= 4 ? [$position, $clock, $used] : null;
    }

    /**
     * @param array<int, array{float, float, float, int, float, float}> $rows
     *
     * @return ?list<float>
     */
    private static function solved(array $rows, int $count): ?array
    {
        $n = array_fill(0, $count, array_fill(0, $count, 0.0));
        $b = array_fill(0, $count, 0.0);
        foreach ($rows as [$x, $y, $z, $c, $w, $p]) {
            $a = [0 => $x, 1 => $y, 2 => $z, 3 + $c => 1.0];
            foreach ($a as $i => $ai) {
                $b[$i] += $p * $ai * $w;
                foreach ($a as $j => $aj) {
                    $n[$i][$j] += $p * $ai * $aj;
                }
            }
        }
        $inverse = Dense::inverse($n);
        if (null === $inverse) {
            return null;
        }
        $x = [];
        foreach ($inverse as $row) {
            $sum = 0.0;
            foreach ($row as $j => $value) {
                $sum += $value * $b[$j];
            }
            $x[] = $sum;
        }

        return $x;
    }

    /**
     * The code that does not fit the others by far.
     *
     * @param array<int, array{float, float, float, int, float, float}> $rows
     * @param list<float> $x
     */
    private static function worst(array $rows, array $x): ?int
    {
        $largest = self::OUTLIER;
        $worst = null;
        foreach ($rows as $i => [$ax, $ay, $az, $c, $w]) {
            $residual = abs($w - $ax * $x[0] - $ay * $x[1] - $az * $x[2] - $x[3 + $c]);
            if ($residual > $largest) {
                $largest = $residual;
                $worst = $i;
            }
        }

        return $worst;
    }
}
