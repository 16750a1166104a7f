<?php

declare(strict_types=1);

namespace Demo;

/**
 * The village street below the quarry, driven down and up again by a mobile mapper: the second drive says a place that drifts off by
 * decimetres, and cars stand elsewhere. Simulated.
 */
final class Drives
{
    public const DOWN = 'village-down.csv';
    public const DOWN_SCAN = 'village-down.las';
    public const UP = 'village-up.csv';
    public const UP_SCAN = 'village-up.las';

    private const BEGIN = [493_180.0, 6_028_330.0, 221.0];
    private const LENGTH = 140.0;
    private const POINTS = 2_200;

    /** @return array<string, string> */
    public function files(): array
    {
        $street = new Street(self::LENGTH, true, TruthModel::SEED, self::BEGIN);
        $down = $street->drive(381_600.0, static fn (float $t): array => [0.0, 0.0, 0.0], self::POINTS);
        $up = $street->drive(382_500.0, self::drift(...), self::POINTS);
        $header = 'time,e,n,h,roll,pitch,heading';

        return [
            self::DOWN => Street::csv($header, $down['trajectory']), self::DOWN_SCAN => Street::las($down['points']),
            self::UP => Street::csv($header, $up['trajectory']), self::UP_SCAN => Street::las($up['points']),
        ];
    }

    /** @return array{float, float, float} what the second drive is wrong by */
    private static function drift(float $time): array
    {
        $t = $time - 382_500.0;

        return [0.21 + 0.05 * sin($t / 6.0), -0.13 + 0.006 * $t, 0.08 - 0.05 * cos($t / 8.0)];
    }
}
