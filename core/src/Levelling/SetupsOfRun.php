<?php

declare(strict_types=1);

namespace Mensura\Levelling;

use Mensura\Fault\UnusableInput;

/** Takes the rows of a run apart into setups and corrects their readings. */
final class SetupsOfRun
{
    /**
     * @param string $where path of the run, for messages
     *
     * @return list<LevelSetup>
     *
     * @throws UnusableInput naming the run and the row where the pattern breaks
     */
    public static function of(Run $run, LevelSettings $settings, string $where): array
    {
        $kinds = $run->pattern->kinds();
        $count = \count($kinds);
        $setups = [];
        $main = $between = [];
        foreach ($run->rows as $i => $row) {
            $path = "$where.rows[$i]";
            if (Sight::INTERMEDIATE === $row->kind) {
                if ([] === $main) {
                    throw new UnusableInput($path, \sprintf(
                        'run %s: the intermediate sight to "%s" stands between two setups; it belongs between the first '
                            .'and last sight of its setup',
                        $run->id, $row->point,
                    ));
                }
                $between[] = $row;
                continue;
            }
            $due = $kinds[\count($main)];
            if ($row->kind !== $due) {
                throw new UnusableInput($path, \sprintf(
                    'run %s, setup %d: the pattern %s has a %s sight here, not a %s sight to "%s"; a sight is missing or one too many',
                    $run->id, \count($setups) + 1, $run->pattern->value, $due, $row->kind, $row->point,
                ));
            }
            foreach ($main as $earlier) {
                if ($earlier->kind === $row->kind && $earlier->point !== $row->point) {
                    throw new UnusableInput($path, \sprintf(
                        'run %s, setup %d: the repeated %s sights are to "%s" and to "%s"; they must be to one point',
                        $run->id, \count($setups) + 1, $row->kind, $earlier->point, $row->point,
                    ));
                }
            }
            if ([] === $main && [] !== $setups && $setups[\count($setups) - 1]->forePoint !== $row->point) {
                throw new UnusableInput($path, \sprintf(
                    'run %s, setup %d: the back sight is to "%s", but the setup before ended on "%s"; a setup is missing '
                        .'or a name is wrong',
                    $run->id, \count($setups) + 1, $row->point, $setups[\count($setups) - 1]->forePoint,
                ));
            }
            $main[] = $row;
            if (\count($main) === $count) {
                $setups[] = self::setup($main, $between, $run->pattern, $settings);
                $main = $between = [];
            }
        }
        if ([] !== $main) {
            throw new UnusableInput("$where.rows", \sprintf(
                'run %s ends within setup %d: the pattern %s has %d sights a setup, besides intermediate ones, and this one has %d',
                $run->id, \count($setups) + 1, $run->pattern->value, $count, \count($main),
            ));
        }

        return $setups;
    }

    /**
     * @param list<Sight> $main
     * @param list<Sight> $between
     */
    private static function setup(array $main, array $between, Pattern $pattern, LevelSettings $settings): LevelSetup
    {
        $lengths = [Sight::BACK => [], Sight::FORE => []];
        $isMissing = false;
        foreach ($main as $sight) {
            if (null === $sight->distance) {
                $isMissing = true;
            } else {
                $lengths[$sight->kind][] = $sight->distance;
            }
        }
        // Half a correction would be worse than none: a setup without all its lengths stays uncorrected.
        $curved = $settings->curvature && !$isMissing;
        $factor = $settings->staffFactor();
        $reading = static fn (Sight $s): float => $s->reading * $factor
            - ($curved && null !== $s->distance ? $settings->curvatureAt($s->distance) : 0.0);
        $readings = [Sight::BACK => [], Sight::FORE => []];
        foreach ($main as $sight) {
            $readings[$sight->kind][] = $reading($sight);
        }
        [$back, $fore] = [$readings[Sight::BACK], $readings[Sight::FORE]];
        $repeat = match ($pattern) {
            Pattern::BackFore => null,
            Pattern::BackForeForeBack => abs(($back[0] - $fore[0]) - ($back[1] - $fore[1])),
            Pattern::BackBackForeFore => max(abs($back[0] - $back[1]), abs($fore[0] - $fore[1])),
        };
        $mean = static fn (array $values): float => array_sum($values) / \count($values);
        $points = [];
        foreach ($main as $sight) {
            $points[$sight->kind] = $sight->point;
        }
        $intermediates = [];
        foreach ($between as $sight) {
            $intermediates[] = [$sight->point, $reading($sight)];
        }

        return new LevelSetup(
            $points[Sight::BACK] ?? '', $points[Sight::FORE] ?? '', $mean($back), $mean($fore),
            $isMissing ? null : $mean($lengths[Sight::BACK]), $isMissing ? null : $mean($lengths[Sight::FORE]),
            $intermediates, $repeat, $settings->curvature && !$curved,
        );
    }
}
