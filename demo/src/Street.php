<?php

declare(strict_types=1);

namespace Demo;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * A made-up street of boxes: ground, kerbs, house fronts, posts, and cars that stand elsewhere at every drive, scanned ray by ray from
 * a vehicle. What a drive says of its place is wrong by a function of time.
 */
final class Street
{
    private const TURN = 0.4;
    private const NOISE = 0.008;
    private const HEIGHT = 2.2;
    private const PAVEMENT = 0.12;
    /** Marks are painted that far around their middle, and what lies within reach of one is scanned densely. */
    private const PAINTED = 0.15;
    private const REACH = 1.0;
    private const DENSE = 1_500;
    private const DULL = 9_000;
    private const BRIGHT = 52_000;

    public readonly Randomizer $random;

    /** @var list<array{float, float, float, float, float, float}> west, east, south, north, bottom, top along the street */
    private array $boxes = [];

    /** @param array{float, float, float} $begin of the way: e, n, h */
    public function __construct(
        public readonly float $length, private readonly bool $hasDetail = true, int $seed = 1,
        private readonly array $begin = [40_000.0, 70_000.0, 310.0],
    ) {
        $this->random = new Randomizer(new Xoshiro256StarStar($seed));
        foreach ([1.0, -1.0] as $side) {
            $this->box(-60.0, $length + 60.0, $side * 4.0, $side * 30.0, -3.0, 0.12);
            if (!$hasDetail) {
                $this->box(-60.0, $length + 60.0, $side * 7.0, $side * 15.0, -3.0, 9.0);
                continue;
            }
            for ($x = -30.0 + 4.0 * $side; $x < $length + 30.0; $x += 14.0) {
                $this->box($x, $x + 10.0 + $this->between(0.0, 2.0), $side * $this->between(6.5, 8.5), $side * 15.0, -3.0, 9.0);
            }
            for ($x = -20.0 + 7.0 * $side; $x < $length + 20.0; $x += 23.0) {
                $this->box($x, $x + 0.25, $side * 4.4, $side * 4.65, 0.0, 6.0);
            }
        }
    }

    /**
     * @param \Closure(float): array{float, float, float} $error of the place at a time
     * @param list<array{float, float}>                   $marks painted on the pavement: along, left
     *
     * @return array{trajectory: list<list<float>>, points: list<list<float>>} time, e, n, h, and of the trajectory roll, pitch, heading,
     *                                                                         of points the intensity where marks are painted
     */
    public function drive(float $start, \Closure $error, int $pointsASecond = 400, float $speed = 8.0, array $marks = []): array
    {
        $boxes = $this->boxes;
        for ($x = 5.0; $this->hasDetail && $x < $this->length; $x += $this->between(9.0, 25.0)) {
            $side = $this->random->getInt(0, 1) * 2 - 1;
            $boxes[] = self::sorted($x, $x + 4.2, $side * 2.1, $side * 3.8, 0.0, 1.5);
        }
        $trajectory = $points = [];
        for ($k = 0, $n = (int) ceil($this->length / $speed * 10.0); $k <= $n; ++$k) {
            $time = $start + $k / 10.0;
            $trajectory[] = [$time, ...$this->placed([$k / 10.0 * $speed, 0.0, 2.0], $error($time)), 0.1, -0.2, 90.0 - rad2deg(self::TURN)];
        }
        for ($k = 0, $n = (int) ($this->length / $speed * $pointsASecond); $k < $n; ++$k) {
            $time = $start + $k / $pointsASecond;
            $eye = [($time - $start) * $speed, 0.0, self::HEIGHT];
            [$a, $up] = [$this->between(0.0, 2.0 * \M_PI), $this->between(-0.7, 0.7)];
            $ray = [cos($up) * cos($a), cos($up) * sin($a), sin($up)];
            $away = $this->hit($boxes, $eye, $ray);
            if ($away < 30.0) {
                $away += $this->between(-1.7, 1.7) * self::NOISE;
                $place = [$eye[0] + $away * $ray[0], $eye[1] + $away * $ray[1], $eye[2] + $away * $ray[2]];
                $looks = [] === $marks ? [] : [self::intensity($place, $marks)];
                $points[] = [$time, ...$this->placed($place, $error($time)), ...$looks];
            }
        }
        foreach ($marks as $mark) {
            array_push($points, ...$this->dense($mark, $marks, $boxes, $start, $error, $speed));
        }
        usort($points, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return ['trajectory' => $trajectory, 'points' => $points];
    }

    /**
     * What lies around a mark, as dense as a scanner sees it; elsewhere the scan is thinned.
     *
     * @param array{float, float}                                           $mark
     * @param list<array{float, float}>                                     $marks
     * @param list<array{float, float, float, float, float, float}>         $boxes
     * @param \Closure(float): array{float, float, float} $error
     *
     * @return list<list<float>>
     */
    private function dense(array $mark, array $marks, array $boxes, float $start, \Closure $error, float $speed): array
    {
        $points = [];
        for ($k = 0; $k < self::DENSE; ++$k) {
            $along = $mark[0] + $this->between(-4.0, 4.0);
            if ($along < 0.0 || $along > $this->length) {
                continue;
            }
            $time = $start + $along / $speed;
            [$r, $a] = [self::REACH * sqrt($this->between(0.0, 1.0)), $this->between(0.0, 2.0 * \M_PI)];
            $to = [$mark[0] + $r * cos($a) - $along, $mark[1] + $r * sin($a), self::PAVEMENT - self::HEIGHT];
            $length = sqrt($to[0] ** 2 + $to[1] ** 2 + $to[2] ** 2);
            $ray = [$to[0] / $length, $to[1] / $length, $to[2] / $length];
            $away = $this->hit($boxes, [$along, 0.0, self::HEIGHT], $ray);
            $measured = $away + $this->between(-1.7, 1.7) * self::NOISE;
            $at = static fn (float $d): array => [$along + $d * $ray[0], $d * $ray[1], self::HEIGHT + $d * $ray[2]];
            $points[] = [$time, ...$this->placed($at($measured), $error($time)), self::intensity($at($away), $marks)];
        }

        return $points;
    }

    /**
     * @param array{float, float, float} $place along, left, up
     * @param list<array{float, float}>  $marks
     */
    private static function intensity(array $place, array $marks): float
    {
        foreach ($marks as [$along, $left]) {
            if (hypot($place[0] - $along, $place[1] - $left) <= self::PAINTED && abs($place[2] - self::PAVEMENT) < 0.05) {
                return self::BRIGHT;
            }
        }

        return self::DULL;
    }

    /**
     * LAS 1.2, point format 1 (ASPRS LAS specification 1.4 R15, tables 3, 7 and 8): places to a tenth of a millimetre, GPS times.
     *
     * @param list<list<float>> $points time, e, n, h, and intensity where it is known
     */
    public static function las(array $points): string
    {
        [$e0, $n0] = [floor($points[0][1] ?? 0.0), floor($points[0][2] ?? 0.0)];
        $records = '';
        $low = [\INF, \INF, \INF];
        $high = [-\INF, -\INF, -\INF];
        foreach ($points as $p) {
            [$t, $e, $n, $h] = $p;
            $records .= pack('l3v', round(1e4 * ($e - $e0)), round(1e4 * ($n - $n0)), round(1e4 * $h), $p[4] ?? 0)."\11"
                .str_repeat("\0", 5).pack('e', $t);
            foreach ([$e, $n, $h] as $k => $v) {
                [$low[$k], $high[$k]] = [min($low[$k], round($v, 4)), max($high[$k], round($v, 4))];
            }
        }
        $head = 'LASF'.str_repeat("\0", 20)."\1\2".str_pad('mensura demo', 32, "\0").str_pad('mensura demo', 32, "\0");
        $head .= pack('v3V2CvV', 158, 2031, 227, 227, 0, 1, 28, \count($points)).pack('V5', \count($points), 0, 0, 0, 0);
        $head .= pack('e6', 1e-4, 1e-4, 1e-4, $e0, $n0, 0.0).pack('e6', $high[0], $low[0], $high[1], $low[1], $high[2], $low[2]);

        return $head.$records;
    }

    /**
     * @param array{float, float, float} $at    along, left, up
     * @param array{float, float, float} $error
     *
     * @return array{float, float, float}
     */
    public function placed(array $at, array $error = [0.0, 0.0, 0.0]): array
    {
        [$x, $y] = [$at[0] * cos(self::TURN) - $at[1] * sin(self::TURN), $at[0] * sin(self::TURN) + $at[1] * cos(self::TURN)];

        [$e, $n, $h] = $this->begin;

        return [$e + $x + $error[0], $n + $y + $error[1], $h + $at[2] + $error[2]];
    }

    /** @param list<list<float>> $rows */
    public static function csv(string $header, array $rows): string
    {
        $lines = [$header];
        foreach ($rows as $row) {
            $lines[] = implode(',', array_map(static fn (float $v): string => \sprintf('%.4f', $v), $row));
        }

        return implode("\n", $lines)."\n";
    }

    private function between(float $least, float $most): float
    {
        return $least + ($most - $least) * $this->random->getInt(0, 1 << 30) / (1 << 30);
    }

    private function box(float $west, float $east, float $south, float $north, float $bottom, float $top): void
    {
        $this->boxes[] = self::sorted($west, $east, $south, $north, $bottom, $top);
    }

    /** @return array{float, float, float, float, float, float} */
    private static function sorted(float $west, float $east, float $south, float $north, float $bottom, float $top): array
    {
        return [min($west, $east), max($west, $east), min($south, $north), max($south, $north), $bottom, $top];
    }

    /**
     * @param list<array{float, float, float, float, float, float}> $boxes
     * @param array{float, float, float}                            $eye
     * @param array{float, float, float}                            $ray
     */
    private function hit(array $boxes, array $eye, array $ray): float
    {
        // The ground.
        $nearest = $ray[2] < 0.0 ? -$eye[2] / $ray[2] : \INF;
        foreach ($boxes as $box) {
            [$in, $out] = [0.0, $nearest];
            for ($axis = 0; $axis < 3; ++$axis) {
                if (0.0 === $ray[$axis]) {
                    continue 2;
                }
                $a = ($box[2 * $axis] - $eye[$axis]) / $ray[$axis];
                $b = ($box[2 * $axis + 1] - $eye[$axis]) / $ray[$axis];
                $in = max($in, min($a, $b));
                $out = min($out, max($a, $b));
                if ($in >= $out) {
                    continue 2;
                }
            }
            $nearest = $in;
        }

        return $nearest;
    }
}
