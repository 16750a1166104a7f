<?php

declare(strict_types=1);

namespace Mensura\Network;

use Mensura\Fault\UnusableInput;

/**
 * Estimates what the standard deviations of groups of observations must be multiplied by for their residuals to agree
 * with them: v'Pv of the group over its redundancy, taken into the weights and repeated until nothing changes.
 *
 * Foerstner (1979), Ein Verfahren zur Schaetzung von Varianz- und Kovarianzkomponenten; at convergence the best invariant
 * quadratic estimate for uncorrelated groups.
 */
final class VarianceComponents
{
    /** A group with less redundancy says nothing of its precision. */
    private const REDUNDANCY = 2.0;

    private const ITERATIONS = 12;
    private const CONVERGED = 0.005;

    /** A group is not made better or worse than this in one proposal: beyond it something else is wrong. */
    private const MOST = 20.0;

    /**
     * @param list<string> $groups of each observation
     * @param ?\Closure(string, float): void $progress
     *
     * @return array{array<string, array{factor: float, count: int, redundancy: float}>, AdjustmentResult} per group what its
     *     standard deviations are to be multiplied by (1 where too little controls it); the network with them
     *
     * @throws UnusableInput
     */
    public static function of(NetworkDefinition $network, array $groups, bool $free, ?\Closure $progress = null): array
    {
        $factors = array_fill_keys(array_unique($groups), 1.0);
        $found = [];
        $result = null;
        for ($k = 0; $k < self::ITERATIONS; ++$k) {
            if (null !== $progress) {
                $progress(\sprintf('variance components, pass %d', $k + 1), $k / self::ITERATIONS);
            }
            $observations = [];
            foreach ($network->observations as $i => $o) {
                $observations[] = $o->with(['sdFactor' => $o->sdFactor * $factors[$groups[$i]]]);
            }
            $result = (new Adjustment(
                new NetworkDefinition($network->frame, $network->settings, $network->stations, $observations, $network->sources), $free,
            ))->run();
            $sums = [];
            foreach ($result->observations as $row) {
                if ('full' !== $row['use'] || null === $row['standardized']) {
                    continue;
                }
                $group = $groups[$row['index']];
                $sums[$group] ??= [0, 0.0, 0.0];
                ++$sums[$group][0];
                // w^2 r is v^2 p of an uncorrelated observation, and close to it within a vector.
                $sums[$group][1] += $row['standardized'] ** 2 * $row['redundancyNumber'];
                $sums[$group][2] += $row['redundancyNumber'];
            }
            $largest = 0.0;
            foreach ($sums as $group => [$count, $square, $redundancy]) {
                $step = $redundancy >= self::REDUNDANCY ? sqrt(max($square, 1e-12) / $redundancy) : 1.0;
                $next = min(self::MOST, max(1.0 / self::MOST, $factors[$group] * $step));
                $largest = max($largest, abs($next / $factors[$group] - 1.0));
                $factors[$group] = $next;
                $found[$group] = ['factor' => $next, 'count' => $count, 'redundancy' => $redundancy];
            }
            if ($largest < self::CONVERGED) {
                break;
            }
        }

        return [$found, $result];
    }
}
