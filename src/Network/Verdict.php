<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\View\GroupView;
use App\Network\View\RowView;
use Mensura\Statistics\Distribution;

/** Says in words what an adjustment's tests say in numbers. */
final class Verdict
{
    private const WORDS = [
        'direction' => 'directions', 'zenith' => 'zenith angles', 'slope-distance' => 'slope distances',
        'horizontal-distance' => 'horizontal distances',
        'vector' => 'vectors', 'height-difference' => 'height differences', 'angle' => 'angles',
        'azimuth' => 'azimuths', 'coordinate' => 'weighted control',
    ];

    public static function word(string $kind): string
    {
        return self::WORDS[$kind] ?? $kind;
    }

    /**
     * @param list<array{type: string, count: int, sumSquares: float, redundancy: float, varianceFactor: ?float}> $groups
     *
     * @return list<GroupView>
     */
    public static function kinds(array $groups, float $confidence): array
    {
        return array_map(static function (array $g) use ($confidence): GroupView {
            $standing = self::standing($g['varianceFactor'], $g['redundancy'], $confidence);

            return new GroupView(self::word($g['type']), $g['type'], '', $g['count'], $g['redundancy'], $g['varianceFactor'], $standing);
        }, $groups);
    }

    /**
     * Per setup and kind, from standardized residuals: sum of w^2 r over sum of r.
     *
     * @param list<RowView> $rows
     *
     * @return list<GroupView> highest factor first
     */
    public static function setups(array $rows, float $confidence): array
    {
        $sums = [];
        foreach ($rows as $row) {
            if (!$row->used || null === $row->redundancy || null === $row->standardized) {
                continue;
            }
            $key = $row->kind."\0".self::setup($row);
            $sums[$key] ??= [0, 0.0, 0.0];
            ++$sums[$key][0];
            $sums[$key][1] += $row->standardized ** 2 * $row->redundancy;
            $sums[$key][2] += $row->redundancy;
        }
        $views = [];
        foreach ($sums as $key => [$count, $square, $r]) {
            [$kind, $setup] = explode("\0", $key);
            $factor = $r > 0.5 ? $square / $r : null;
            $name = \sprintf('%s of %s', self::word($kind), $setup);
            $views[] = new GroupView($name, $kind, $setup, $count, $r, $factor, self::standing($factor, $r, $confidence));
        }
        usort($views, static fn (GroupView $a, GroupView $b): int => ($b->factor ?? 0.0) <=> ($a->factor ?? 0.0));

        return $views;
    }

    private static function setup(RowView $row): string
    {
        return match (true) {
            'vector' !== $row->kind => $row->at.'/'.$row->set,
            '' === $row->set => $row->at,
            default => $row->set,
        };
    }

    private static function standing(?float $factor, float $redundancy, float $confidence): string
    {
        if (null === $factor || $redundancy < 0.5) {
            return 'untested';
        }
        $level = 1.0 - $confidence;
        $probability = Distribution::chiSquareCdf($factor * $redundancy, $redundancy);

        return match (true) {
            $probability > 1.0 - 0.5 * $level => 'high',
            $probability < 0.5 * $level => 'low',
            default => 'fits',
        };
    }

    /**
     * @param list<GroupView> $kinds
     * @param list<GroupView> $setups
     *
     * @return array{string, list<string>} headline and sentences
     */
    public static function words(int $run, AdjustmentSummary $summary, array $kinds, array $setups, int $flagged, float $confidence): array
    {
        $test = $summary->test;
        if (null === $test) {
            $sentence = 'There is no redundancy: every observation is needed, none is checked by another.';

            return ["Adjustment $run has nothing to test", [$sentence]];
        }
        $r = $summary->redundancy;
        $factor = (float) $summary->varianceFactor;
        $expected = 'Variance factor %.2f, expected between %.2f and %.2f (%.0f %%, %d redundant).';
        $sentences = [\sprintf($expected, $factor, $test['lower'] / $r, $test['upper'] / $r, 100.0 * $confidence, $r)];
        if ($test['passed']) {
            $standing = \sprintf(
                '%d observation%s still stand%s out above 3.29.', $flagged, 1 === $flagged ? '' : 's',
                1 === $flagged ? 's' : '',
            );
            $sentences[] = 0 === $flagged ? 'No observation stands out.' : $standing;
        } elseif ($factor * $r < $test['lower']) {
            $sentences[] = 'The observations agree better than their weights promise: the a-priori standard deviations are too large.';
        } else {
            $sentences[] = self::excess($kinds, $setups);
        }

        return [\sprintf('Adjustment %d %s its global test', $run, $test['passed'] ? 'passes' : 'fails'), $sentences];
    }

    /**
     * Where a factor that is too high comes from.
     *
     * @param list<GroupView> $kinds
     * @param list<GroupView> $setups
     */
    private static function excess(array $kinds, array $setups): string
    {
        $high = array_values(array_filter($setups, static fn (GroupView $g): bool => 'high' === $g->standing));
        if ([] === $high) {
            return 'No single setup carries the excess: look at the weights of whole kinds.';
        }
        $named = array_column(\array_slice($high, 0, 2), 'kind');
        $isCalm = static fn (GroupView $g): bool => \in_array($g->standing, ['fits', 'low'], true) && !\in_array($g->kind, $named, true);
        $calm = array_map(static fn (GroupView $g): string => $g->name, array_values(array_filter($kinds, $isCalm)));
        $sentence = \sprintf('The excess sits in the %s%s.', $high[0]->name, isset($high[1]) ? ' and the '.$high[1]->name : '');
        if ([] === $calm) {
            return $sentence;
        }
        $list = implode(' and ', array_filter([implode(', ', \array_slice($calm, 0, -1)), end($calm)]));

        return $sentence.\sprintf(' %s agree with their weights.', ucfirst($list));
    }
}
