<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/**
 * A run worked out as it is being written: running heights, repeats against their limit, closures on the benchmarks it
 * passes, and what is wrong row by row. It never refuses; what cannot be had is null.
 */
final class RunningBook
{
    private const ROUNDING = 1e-9;

    /**
     * @param list<array{kind: string, point: string, reading: ?float, distance: ?float}> $rows
     * @param array<string, float>                                                        $known heights, keyed "p" and their name
     *
     * @return list<RunningRow>
     */
    public static function of(Pattern $pattern, array $rows, array $known, LevelSettings $settings): array
    {
        $kinds = $pattern->kinds();
        $count = \count($kinds);
        $out = [];
        $setup = 1;
        $position = 0;
        $backs = $fores = [];
        $backPoint = $forePoint = '';
        $before = null;
        $h = null;
        $foreHeight = null;
        $unbalance = 0.0;
        $lengths = ['back' => [], 'fore' => []];
        $isCurved = self::curved($pattern, $rows, $settings);
        foreach ($rows as $i => $row) {
            $point = trim($row['point']);
            $fault = null;
            if (null === $row['reading']) {
                $fault = 'no reading';
            } elseif ('' === $point) {
                $fault = 'no point';
            }
            $reading = null === $row['reading'] ? null : $row['reading'] * $settings->staffFactor()
                - ($isCurved[$i] && null !== $row['distance'] ? $settings->curvatureAt($row['distance']) : 0.0);
            if (Sight::INTERMEDIATE === $row['kind']) {
                $fault ??= 0 === $position ? 'an intermediate sight belongs between the first and last sight of a setup' : null;
                $horizon = self::horizon($h, $backs);
                $out[] = new RunningRow(
                    $setup, null, null === $horizon || null === $reading ? null : $horizon - $reading, null, false, null, null, $fault,
                );
                continue;
            }
            $due = $kinds[$position];
            if ($row['kind'] !== $due) {
                $fault ??= \sprintf('a %s sight is due here; insert the one that is missing, or delete this', $due);
            }
            $repeat = null;
            $isFirst = 0 === $position;
            if ($isFirst) {
                if (null !== $before && $point !== $before) {
                    $fault ??= \sprintf('the setup before ended on %s; is a setup missing?', $before);
                }
                $backPoint = $point;
                $forePoint = '';
                $backs = $fores = [];
                $lengths = ['back' => [], 'fore' => []];
                $h = $known["p$point"] ?? ($point === $before ? $foreHeight : null);
            }
            if (Sight::BACK === $row['kind']) {
                $fault ??= $point !== $backPoint ? \sprintf('repeats the back sight to %s', $backPoint) : null;
                if (null !== $reading) {
                    $backs[] = $reading;
                }
            } else {
                if ('' === $forePoint) {
                    $forePoint = $point;
                }
                $fault ??= $point !== $forePoint ? \sprintf('repeats the fore sight to %s', $forePoint) : null;
                if (null !== $reading) {
                    $fores[] = $reading;
                }
            }
            if (null !== $row['distance']) {
                $lengths[Sight::BACK === $row['kind'] ? 'back' : 'fore'][] = $row['distance'];
            }
            $isLast = ++$position === $count;
            if (2 === \count(Sight::BACK === $row['kind'] ? $backs : $fores) && Pattern::BackBackForeFore === $pattern) {
                $pair = Sight::BACK === $row['kind'] ? $backs : $fores;
                $repeat = $pair[1] - $pair[0];
            } elseif ($isLast && Pattern::BackForeForeBack === $pattern && 2 === \count($backs) && 2 === \count($fores)) {
                $repeat = ($backs[1] - $fores[1]) - ($backs[0] - $fores[0]);
            }
            $horizon = self::horizon($h, $backs);
            $height = null;
            $misclosure = null;
            if (Sight::FORE === $row['kind'] && null !== $horizon && [] !== $fores) {
                $height = $horizon - array_sum($fores) / \count($fores);
                $foreHeight = $height;
            } elseif (Sight::BACK === $row['kind']) {
                $height = $h;
            }
            if ($isLast) {
                if (null !== $horizon && [] !== $fores) {
                    $foreHeight = $horizon - array_sum($fores) / \count($fores);
                    $misclosure = isset($known["p$forePoint"]) ? $foreHeight - $known["p$forePoint"] : null;
                }
                $unbalance = [] === $lengths['back'] || [] === $lengths['fore'] || null === $unbalance ? null
                    : $unbalance + array_sum($lengths['back']) / \count($lengths['back'])
                        - array_sum($lengths['fore']) / \count($lengths['fore']);
            }
            $out[] = new RunningRow(
                $setup, $isFirst ? $horizon : null, $height, $repeat,
                null !== $repeat && null !== $settings->repeatLimit && abs($repeat) > $settings->repeatLimit + self::ROUNDING,
                $misclosure, $isLast ? $unbalance : null, $fault,
            );
            if ($isLast) {
                $before = $forePoint;
                $position = 0;
                ++$setup;
            }
        }

        return $out;
    }

    /**
     * Which rows are corrected for curvature: those of set-ups whose sights all have a length, as when the book is worked out.
     *
     * @param list<array{kind: string, point: string, reading: ?float, distance: ?float}> $rows
     *
     * @return list<bool>
     */
    private static function curved(Pattern $pattern, array $rows, LevelSettings $settings): array
    {
        $count = \count($pattern->kinds());
        $curved = $open = [];
        $main = 0;
        $isWhole = true;
        foreach ($rows as $row) {
            $open[] = $settings->curvature;
            if (Sight::INTERMEDIATE !== $row['kind']) {
                ++$main;
                $isWhole = $isWhole && null !== $row['distance'];
            }
            if ($main === $count) {
                array_push($curved, ...array_map(static fn (bool $asked): bool => $asked && $isWhole, $open));
                [$open, $main, $isWhole] = [[], 0, true];
            }
        }

        return [...$curved, ...array_map(static fn (bool $asked): bool => $asked && $isWhole, $open)];
    }

    /** @param list<float> $backs */
    private static function horizon(?float $h, array $backs): ?float
    {
        return null === $h || [] === $backs ? null : $h + array_sum($backs) / \count($backs);
    }
}
