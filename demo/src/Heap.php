<?php

declare(strict_types=1);

namespace Demo;

/**
 * A heap of gravel, surveyed in May and in June: in between it grew to the north and was dug away at its south-west foot. A peg
 * that stands 20 cm proud was measured with the second survey. The same day it was scanned, and six marks on it are known.
 */
final class Heap
{
    public const MAY = 'heap-may.csv';
    public const JUNE = 'heap-june.csv';
    public const SCAN = 'heap-scan.xyz';
    public const CHECKS = 'heap-checks.csv';
    public const CODE = 'HEAP';
    public const PEG = 'HB-PEG';
    public const EAST = 493600.0;
    public const NORTH = 6028196.0;
    private const STEP = 2.6;
    private const REACH = 21.0;
    private const SCANNED = 0.4;

    /** Metres above the ellipsoid, of the ground with the heap on it. */
    public static function height(float $e, float $n, bool $june): float
    {
        $ground = TruthModel::ground($e, $n);
        $cone = static fn (float $east, float $north, float $top, float $slope): float => max(
            0.0, $top - $slope * hypot($e - self::EAST - $east, $n - self::NORTH - $north),
        );
        $heap = min(4.6, max($cone(-5.0, -3.0, 7.2, 0.72), $cone(4.0, 1.0, 6.4, 0.72)));
        if ($june) {
            $heap = max($heap, min(5.2, $cone(1.0, 7.0, 6.8, 0.72)));
            // Dug away as far as a loader reaches, the face left at 1 in 0.6.
            $heap = min($heap, max(0.0, 1.67 * (($e - self::EAST + 8.0) + ($n - self::NORTH + 6.0)) / \M_SQRT2));
        }

        return $ground + $heap;
    }

    /** Points as they were measured. */
    public function survey(bool $june): string
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(TruthModel::SEED + (int) $june));
        $between = static fn (float $size): float => $size * $random->getInt(-1000, 1000) / 1000.0;
        $text = \sprintf("# Heap of gravel, measured %s 2031. Simulated.\n", $june ? '6 June' : '4 May')
            ."point,easting [m],northing [m],ellipsoidal height [m],code\n";
        $number = 0;
        for ($n = -self::REACH; $n <= self::REACH; $n += self::STEP) {
            for ($e = -self::REACH; $e <= self::REACH; $e += self::STEP) {
                $x = self::EAST + $e + $between(0.5);
                $y = self::NORTH + $n + $between(0.5);
                $h = self::height($x, $y, $june) + $between(0.02);
                if (hypot($e, $n) <= self::REACH) {
                    $text .= \sprintf("%s-%03d,%.3F,%.3F,%.3F,%s\n", $june ? 'HB' : 'HA', ++$number, $x, $y, $h, self::CODE);
                }
            }
        }
        if ($june) {
            [$x, $y] = [self::EAST + 14.0, self::NORTH - 13.0];
            $text .= \sprintf("%s,%.3F,%.3F,%.3F,%s\n", self::PEG, $x, $y, self::height($x, $y, true) + 0.2, self::CODE);
        }

        return $text;
    }

    /** The scan of June as lines of coordinates. */
    public function scan(): string
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(TruthModel::SEED + 2));
        $text = "# Heap of gravel, scanned 6 June 2031: easting northing height, metres. Simulated.\n";
        for ($n = -self::REACH; $n <= self::REACH; $n += self::SCANNED) {
            for ($e = -self::REACH; $e <= self::REACH; $e += self::SCANNED) {
                $x = self::EAST + $e + 0.1 * $random->getInt(-1000, 1000) / 1000.0;
                $y = self::NORTH + $n + 0.1 * $random->getInt(-1000, 1000) / 1000.0;
                $noise = 0.006 * ($random->getInt(-1000, 1000) + $random->getInt(-1000, 1000)) / 1000.0;
                $text .= hypot($e, $n) > self::REACH ? ''
                    : \sprintf("%.3F %.3F %.3F\n", $x, $y, self::height($x, $y, true) + $noise);
            }
        }

        return $text;
    }

    /** Six marks, known to a few millimetres, that take part in nothing. */
    public function checks(): string
    {
        $text = "# Check points on the heap, levelled 6 June 2031. Simulated.\npoint,easting [m],northing [m],ellipsoidal height [m]\n";
        $marks = [[0.4, 0.6, 4], [5.2, 8.1, -3], [9.3, -2.2, 2], [14.1, 9.7, -5], [3.4, -6.1, 3], [-10.2, 6.3, -1]];
        foreach ($marks as $i => [$e, $n, $mm]) {
            [$x, $y] = [self::EAST + $e, self::NORTH + $n];
            $text .= \sprintf("CP%02d,%.3F,%.3F,%.4F\n", $i + 1, $x, $y, self::height($x, $y, true) + 0.001 * $mm);
        }

        return $text;
    }
}
