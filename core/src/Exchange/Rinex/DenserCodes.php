<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\GpsTime;

/**
 * The codes of a reference receiver at instants between its epochs, by a cubic through the four about each (Lagrange): ranges
 * change so smoothly that thirty seconds between epochs leave a centimetre. Phases are not carried over.
 */
final class DenserCodes
{
    /** Epochs farther apart have nothing between them, seconds. */
    private const FARTHEST = 31.0;

    /** Metres a code may miss the cubic's neighbours by, beyond which the receiver's clock was set between them. */
    private const CLOCK_JUMP = 1000.0;

    /** @param list<GpsTime> $times growing */
    public static function of(ObservationFile $file, array $times): ObservationFile
    {
        $out = new ObservationFile();
        [$out->marker, $out->approximate, $out->antennaOffset] = [$file->marker, $file->approximate, $file->antennaOffset];
        $places = [];
        foreach ($file->types as $system => $types) {
            foreach ($types as $p => $type) {
                if ('C' === $type[0]) {
                    $out->types[$system][] = $type;
                    $places[$system][] = $p;
                }
            }
        }
        $rows = [];
        foreach ($file->times as $k => $unused) {
            for ($i = $file->epochStart[$k]; $i < $file->epochStart[$k + 1]; ++$i) {
                $rows[$k][$file->satellite[$i]] = $file->valueStart[$i];
            }
        }
        $at = 0;
        $last = \count($file->times) - 1;
        foreach ($times as $time) {
            while ($at < $last - 1 && $file->times[$at + 1]->since($time) <= 0.0) {
                ++$at;
            }
            $four = self::about($file, $at, $time);
            if ([] === $four) {
                continue;
            }
            $weights = self::weights($file, $four, $time);
            $count = 0;
            foreach ($rows[$four[0]] ?? [] as $satellite => $unused) {
                $system = $satellite[0];
                if (!isset($places[$system]) || [] !== array_filter($four, static fn (int $k): bool => !isset($rows[$k][$satellite]))) {
                    continue;
                }
                $values = [];
                foreach ($places[$system] as $p) {
                    $values[] = self::value($file, $rows, $four, $weights, $satellite, $p);
                }
                $out->satellite[] = $satellite;
                $out->valueStart[] = \count($out->value);
                array_push($out->value, ...$values);
                array_push($out->lossOfLock, ...array_fill(0, \count($values), 0));
                ++$count;
            }
            if ($count > 0) {
                $out->times[] = $time;
                $out->epochStart[] = \count($out->satellite);
            }
        }

        return $out;
    }

    /** @return list<int> four epochs about an instant, none far from its neighbour; empty where there are none */
    private static function about(ObservationFile $file, int $at, GpsTime $time): array
    {
        $count = \count($file->times);
        if ($count < 4 || $time->since($file->times[0]) < -1e-3 || $time->since($file->times[$count - 1]) > 1e-3) {
            return [];
        }
        $first = max(0, min($count - 4, $at - 1));
        for ($k = $first; $k < $first + 3; ++$k) {
            if ($file->times[$k + 1]->since($file->times[$k]) > self::FARTHEST) {
                return [];
            }
        }

        return [$first, $first + 1, $first + 2, $first + 3];
    }

    /**
     * @param list<int> $four
     *
     * @return list<float>
     */
    private static function weights(ObservationFile $file, array $four, GpsTime $time): array
    {
        $t = array_map(static fn (int $k): float => $file->times[$k]->since($time), $four);
        $weights = [];
        foreach ($t as $i => $ti) {
            $w = 1.0;
            foreach ($t as $j => $tj) {
                $w *= $i === $j ? 1.0 : $tj / ($tj - $ti);
            }
            $weights[] = $w;
        }

        return $weights;
    }

    /**
     * @param array<int, array<string, int>> $rows
     * @param list<int>                      $four
     * @param list<float>                    $weights
     */
    private static function value(ObservationFile $file, array $rows, array $four, array $weights, string $satellite, int $p): float
    {
        $v = array_map(static fn (int $k): float => $file->value[$rows[$k][$satellite] + $p], $four);
        // A clock that is set by a millisecond is a step no cubic follows.
        if (abs(($v[3] - $v[2]) - 2.0 * ($v[2] - $v[1]) + ($v[1] - $v[0])) > self::CLOCK_JUMP) {
            return \NAN;
        }

        return $weights[0] * $v[0] + $weights[1] * $v[1] + $weights[2] * $v[2] + $weights[3] * $v[3];
    }
}
