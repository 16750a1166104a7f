<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\View\GroupView;
use Mensura\Statistics\Distribution;

/** Says in words what an adjustment's tests say in numbers. */
final class Verdict
{
    private const WORDS = [
        'direction' => 'directions', 'zenith' => 'zenith angles', 'slope-distance' => 'slope distances', 'horizontal-distance' => 'horizontal distances',
        'vector' => 'vectors', 'height-difference' => 'height differences', 'angle' => 'angles', 'azimuth' => 'azimuths', 'coordinate' => 'weighted control',
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
        return array_map(static fn (array $g): GroupView => new GroupView(self::word($g['type']), $g['type'], '', $g['count'], $g['redundancy'], $g['varianceFactor'], self::standing($g['varianceFactor'], $g['redundancy'], $confidence)), $groups);
    }

    /**
     * Per setup and kind, from standardized residuals: sum of w^2 r over sum of r.
     *
     * @param list<array{kind: string, setup: string, standardized: ?float, redundancy: float}> $rows
     *
     * @return list<GroupView> highest factor first
     */
    public static function setups(array $rows, float $confidence): array
    {
        $sums = [];
        foreach ($rows as $row) {
            if (null === $row['standardized']) {
                continue;
            }
            $key = $row['kind']."\0".$row['setup'];
            $sums[$key] ??= [0, 0.0, 0.0];
            ++$sums[$key][0];
            $sums[$key][1] += $row['standardized'] ** 2 * $row['redundancy'];
            $sums[$key][2] += $row['redundancy'];
        }
        $views = [];
        foreach ($sums as $key => [$count, $square, $r]) {
            [$kind, $setup] = explode("\0", $key);
            $factor = $r > 0.5 ? $square / $r : null;
            $views[] = new GroupView(\sprintf('%s of %s', self::word($kind), $setup), $kind, $setup, $count, $r, $factor, self::standing($factor, $r, $confidence));
        }
        usort($views, static fn (GroupView $a, GroupView $b): int => ($b->factor ?? 0.0) <=> ($a->factor ?? 0.0));

        return $views;
    }

    private static function standing(?float $factor, float $redundancy, float $confidence): string
    {
        if (null === $factor || $redundancy < 0.5) {
            return 'untested';
        }
        $level = 1.0 - $confidence;

        return match (true) {
            $factor * $redundancy > Distribution::chiSquareQuantile(1.0 - 0.5 * $level, $redundancy) => 'high',
            $factor * $redundancy < Distribution::chiSquareQuantile(0.5 * $level, $redundancy) => 'low',
            default => 'fits',
        };
    }

    /**
     * @param array<string, mixed> $summary of the result
     * @param list<GroupView>      $kinds
     * @param list<GroupView>      $setups
     *
     * @return array{string, list<string>} headline and sentences
     */
    public static function words(int $run, array $summary, array $kinds, array $setups, int $flagged, float $confidence): array
    {
        $test = $summary['test'];
        if (null === $test) {
            return ["Adjustment $run has nothing to test", ['There is no redundancy: every observation is needed, none is checked by another.']];
        }
        $r = $summary['redundancy'];
        $sentences = [\sprintf('Variance factor %.2f, expected between %.2f and %.2f (%.0f %%, %d redundant).', $summary['varianceFactor'], $test['lower'] / $r, $test['upper'] / $r, 100.0 * $confidence, $r)];
        $high = array_values(array_filter($setups, static fn (GroupView $g): bool => 'high' === $g->standing));
        if ($test['passed']) {
            $sentences[] = 0 === $flagged
                ? 'No observation stands out.'
                : \sprintf('%d observation%s still stand%s out above 3.29.', $flagged, 1 === $flagged ? '' : 's', 1 === $flagged ? 's' : '');
        } elseif ($summary['varianceFactor'] * $r < $test['lower']) {
            $sentences[] = 'The observations agree better than their weights promise: the a-priori standard deviations are too large.';
        } elseif ([] !== $high) {
            $named = array_column(\array_slice($high, 0, 2), 'kind');
            $calm = array_map(static fn (GroupView $g): string => $g->name, array_values(array_filter($kinds, static fn (GroupView $g): bool => \in_array($g->standing, ['fits', 'low'], true) && !\in_array($g->kind, $named, true))));
            $sentences[] = \sprintf('The excess sits in the %s%s.', $high[0]->name, isset($high[1]) ? ' and the '.$high[1]->name : '')
                .([] === $calm ? '' : \sprintf(' %s agree with their weights.', ucfirst(implode(' and ', array_filter([implode(', ', \array_slice($calm, 0, -1)), end($calm)])))));
        } else {
            $sentences[] = 'No single setup carries the excess: look at the weights of whole kinds.';
        }

        return [\sprintf('Adjustment %d %s its global test', $run, $test['passed'] ? 'passes' : 'fails'), $sentences];
    }
}
