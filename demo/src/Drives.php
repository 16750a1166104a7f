<?php

declare(strict_types=1);

namespace Demo;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * The village street below the quarry, driven down and up again by a mobile mapper, with marks on the pavement: the first drive says
 * a place that drifts off by centimetres, the second by decimetres, and cars stand elsewhere. Simulated.
 */
final class Drives
{
    public const DOWN = 'village-down.csv';
    public const DOWN_SCAN = 'village-down.las';
    public const UP = 'village-up.csv';
    public const UP_SCAN = 'village-up.las';
    public const CONTROL = 'village-control.csv';
    public const CHECKS = 'village-checks.csv';

    private const BEGIN = [493_180.0, 6_028_330.0, 221.0];
    private const LENGTH = 140.0;
    private const POINTS = 2_200;
    private const SPEED = 8.0;
    private const BEGINS = [self::DOWN => 381_600.0, self::UP => 382_500.0];
    /** Marks on the pavement: along the street, left of its middle. */
    private const MARKS = [
        self::CONTROL => ['VT1' => [12.0, 5.2], 'VT2' => [70.0, -5.4], 'VT3' => [128.0, 5.1]],
        self::CHECKS => ['VK1' => [45.0, -5.2], 'VK2' => [90.0, 5.3]],
    ];
    private const PAVEMENT = 0.12;
    /** Metres to which a mark is found in a scan. */
    private const FOUND = 0.004;

    /** @return array<string, string> */
    public function files(): array
    {
        $street = new Street(self::LENGTH, true, TruthModel::SEED, self::BEGIN);
        $marks = array_values(array_merge(...array_values(self::MARKS)));
        $down = $street->drive(self::BEGINS[self::DOWN], self::drift(self::DOWN), self::POINTS, self::SPEED, $marks);
        $up = $street->drive(self::BEGINS[self::UP], self::drift(self::UP), self::POINTS, self::SPEED, $marks);
        $header = 'time,e,n,h,roll,pitch,heading';

        return [
            self::DOWN => Street::csv($header, $down['trajectory']), self::DOWN_SCAN => Street::las($down['points']),
            self::UP => Street::csv($header, $up['trajectory']), self::UP_SCAN => Street::las($up['points']),
            self::CONTROL => $this->marks(self::CONTROL), self::CHECKS => $this->marks(self::CHECKS),
        ];
    }

    /** @return list<array{target: string, time: float, e: float, n: float, h: float}> the marks as the scan of a drive shows them */
    public function sightings(string $drive): array
    {
        $street = new Street(self::LENGTH, true, TruthModel::SEED, self::BEGIN);
        $random = new Randomizer(new Xoshiro256StarStar((int) self::BEGINS[$drive]));
        $found = static fn (float $v): float => round($v + self::FOUND * ($random->getInt(-1000, 1000) / 1000.0), 4);
        $seen = [];
        foreach (array_merge(...array_values(self::MARKS)) as $name => [$along, $left]) {
            $time = self::BEGINS[$drive] + $along / self::SPEED;
            [$e, $n, $h] = $street->placed([$along, $left, self::PAVEMENT], self::drift($drive)($time));
            $seen[] = ['target' => $name, 'time' => $time, 'e' => $found($e), 'n' => $found($n), 'h' => $found($h)];
        }

        return $seen;
    }

    private function marks(string $file): string
    {
        $street = new Street(self::LENGTH, true, TruthModel::SEED, self::BEGIN);
        [$head, $held] = self::CONTROL === $file ? [',held', ',enh'] : ['', ''];
        $rows = ["point,easting [m],northing [m],ellipsoidal height [m]$head,description"];
        foreach (self::MARKS[$file] as $name => [$along, $left]) {
            $rows[] = vsprintf("$name,%.3f,%.3f,%.3f$held,mark on the pavement", $street->placed([$along, $left, self::PAVEMENT]));
        }

        return implode("\n", $rows)."\n";
    }

    /** @return \Closure(float): array{float, float, float} what a drive is wrong by, at a time */
    private static function drift(string $drive): \Closure
    {
        return static function (float $time) use ($drive): array {
            $t = $time - self::BEGINS[$drive];

            return self::DOWN === $drive ? [0.03 - 0.002 * $t, -0.02 + 0.0015 * $t, 0.045 - 0.001 * $t]
                : [0.21 + 0.05 * sin($t / 6.0), -0.13 + 0.006 * $t, 0.08 - 0.05 * cos($t / 8.0)];
        };
    }
}
