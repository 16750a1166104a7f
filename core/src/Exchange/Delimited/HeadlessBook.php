<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

use Mensura\Quantity\Unit;

/** The columns of a total-station book without headings, told by their values; nothing when they do not look like one. */
final class HeadlessBook
{
    /** Share of sights that lie near the horizon, and how near in a hundredth of a right angle. */
    private const MOSTLY = 0.8;
    private const NEAR_LEVEL = 25.0;
    private const SPREAD = 30.0;
    /** Figures of an instrument or pole, in metres or feet. */
    private const SHORTEST = 0.3;
    private const TALLEST = 9.0;
    private const FACES = ['1', '2', 'i', 'ii', 'l', 'r', 'f1', 'f2', 'left', 'right'];

    /**
     * @param list<ColumnValues> $values by column
     *
     * @return ?array{array<string, int>, array<string, string>} columns by field; why, by field
     */
    public static function columns(array $values): ?array
    {
        $circles = array_filter(array_map(self::degrees(...), $values), static fn (?array $d): bool => null !== $d);
        $zenith = self::zenith($circles);
        $names = array_keys(array_filter(
            $values,
            static fn (ColumnValues $v): bool => $v->isText() && !$v->looksSexagesimal() && !self::isFace($v),
        ));
        if (null === $zenith || \count($names) < 2) {
            return null;
        }
        unset($circles[$zenith]);
        $turning = array_keys(array_filter(
            $circles,
            static fn (array $d): bool => min($d) >= 0.0 && max($d) <= 400.0 && max($d) - min($d) > self::SPREAD,
        ));
        $direction = \in_array($zenith - 1, $turning, true) ? $zenith - 1 : ($turning[0] ?? null);
        if (null === $direction) {
            return null;
        }
        // A setup is named again on every line of its sights, a target is another on most.
        $runs = array_map(static fn (int $i): int => $values[$i]->changes(), \array_slice($names, 0, 2));
        [$station, $target] = $runs[0] <= $runs[1] ? [$names[0], $names[1]] : [$names[1], $names[0]];
        $columns = ['station' => $station, 'target' => $target, 'direction' => $direction, 'zenith' => $zenith];
        $why = [
            'station' => 'the name that stays over several lines', 'target' => 'the name that changes from line to line',
            'direction' => 'figures around the circle', 'zenith' => 'figures near the horizon',
        ];
        foreach ($values as $i => $v) {
            if (\in_array($i, $columns, true) || 0 === $v->filled) {
                continue;
            }
            [$key, $reason] = self::rest($i, $v, $columns);
            if ('' !== $key && !isset($columns[$key])) {
                $columns[$key] = $i;
                $why[$key] = $reason;
            }
        }

        // Site coordinates of coded points may gather about 100 as well; nothing long stands behind their heights.
        return isset($columns['distance']) ? [$columns, $why] : null;
    }

    /**
     * @param array<string, int> $columns told so far
     *
     * @return array{string, string} field and why; empty where it tells nothing
     */
    private static function rest(int $i, ColumnValues $v, array $columns): array
    {
        $middle = (float) $v->median();

        return match (true) {
            self::isFace($v) => ['face', 'two marks that take turns'],
            !$v->isNumeric() => ['', ''],
            $i > $columns['zenith'] && $middle > self::TALLEST => ['distance', 'the first long figures behind the angles'],
            $v->isWhole() || $middle < self::SHORTEST || $middle > self::TALLEST => ['', ''],
            $i < $columns['target'] => ['hi', 'about as tall as an instrument, before the target'],
            default => ['ht', 'about as tall as a pole, behind the target'],
        };
    }

    /** @param array<int, list<float>> $circles */
    private static function zenith(array $circles): ?int
    {
        foreach ($circles as $i => $figures) {
            foreach ([90.0, 100.0] as $right) {
                $level = array_filter(
                    $figures,
                    static fn (float $z): bool => min(abs($z - $right), abs($z - 3.0 * $right)) < self::NEAR_LEVEL * $right / 100.0,
                );
                // A column of one height or one number gathers too, but not about a right angle on both sides of it.
                if (\count($level) >= self::MOSTLY * \count($figures) && \count(array_unique($figures)) > 1) {
                    return $i;
                }
            }
        }

        return null;
    }

    /** @return ?list<float> the figures of a column that may be a circle reading; degrees where they are sexagesimal */
    private static function degrees(ColumnValues $v): ?array
    {
        if ($v->looksSexagesimal()) {
            return array_values(array_filter(
                array_map(Unit::DegreeMinuteSecond->read(...), $v->cells), static fn (?float $d): bool => null !== $d,
            ));
        }

        return $v->isNumeric() && !$v->isWhole() ? $v->numbers : null;
    }

    private static function isFace(ColumnValues $v): bool
    {
        $words = array_unique(array_map(strtolower(...), $v->cells));

        return 2 === \count($words) && [] === array_diff($words, self::FACES);
    }
}
