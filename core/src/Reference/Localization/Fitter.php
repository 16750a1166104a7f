<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

use Mensura\LinearAlgebra\Dense;

/**
 * Least-squares fit of a localization to pairs: a two-dimensional similarity with any parameter held, by Gauss-Newton
 * from the closed solution (Helmert's transformation: Wolf & Ghilani, Adjustment Computations, chapter 18), and a
 * shift or tilted plane in height. Every pair counts the same.
 *
 * @phpstan-import-type Row from Fit
 */
final class Fitter
{
    /** Pairs nearer than this on one side are the same place twice, metres. */
    private const SAME_PLACE = 0.001;

    /** A pair is suspected when the others fit this many times better without it (F test at about 1 % for common counts). */
    private const CRITICAL = 3.29;

    /**
     * @param list<Pair> $pairs
     *
     * @throws UnusablePairs
     */
    public static function fit(array $pairs, Choices $choices): Fit
    {
        $plan = array_values(array_filter($pairs, static fn (Pair $p): bool => $p->horizontal));
        $heights = Choices::NONE === $choices->vertical
            ? []
            : array_values(array_filter($pairs, static fn (Pair $p): bool => $p->hasHeights()));
        self::check($plan, $heights, $choices);
        $base = [] !== $plan ? $plan : $heights;
        $centreE = array_sum(array_map(static fn (Pair $p): float => $p->localE, $base)) / \count($base);
        $centreN = array_sum(array_map(static fn (Pair $p): float => $p->localN, $base)) / \count($base);

        [$parameters, $normal, $residuals, $redundancies] = self::horizontal($plan, $choices, $centreE, $centreN);
        $redundancy = 2 * \count($plan) - $choices->fitted();
        $sum = 0.0;
        foreach ($residuals as [$vE, $vN]) {
            $sum += $vE * $vE + $vN * $vN;
        }
        $sigma = $redundancy > 0 ? sqrt($sum / $redundancy) : null;

        [$plane, $planeInverse, $vertical, $verticalRedundancies] = self::vertical($heights, $choices, $centreE, $centreN);
        $redundancyH = \count($heights) - $choices->verticalFitted();
        $sumH = array_sum(array_map(static fn (float $v): float => $v * $v, $vertical));
        $sigmaH = $redundancyH > 0 ? sqrt($sumH / $redundancyH) : null;

        $localization = new Localization(
            $centreE, $centreN, $parameters[0], $parameters[1], rad2deg($parameters[2]), $parameters[3],
            $choices->vertical, $plane,
        );
        self::refuseReflection($plan, $choices, $sum, $localization);

        $inPlan = [$plan, $residuals, $redundancies, $sigma];
        $inHeight = [$heights, $vertical, $verticalRedundancies, $sigmaH];
        $rows = self::rows($pairs, $inPlan, $inHeight, $choices);
        $names = ['shiftE', 'shiftN', 'rotation', 'scale'];
        $held = [$choices->shiftE, $choices->shiftN, $choices->rotationDegrees, $choices->scale];
        $sd = [];
        $at = 0;
        foreach ($names as $i => $name) {
            $sd[$name] = null;
            if (null === $held[$i]) {
                $sd[$name] = null === $sigma
                    ? null
                    : $sigma * sqrt(max(0.0, $normal[$at][$at])) * ('rotation' === $name ? 180.0 / \M_PI : 1.0);
                ++$at;
            }
        }
        foreach (['a', 'b', 'c'] as $i => $name) {
            $sd[$name] = null !== $sigmaH && isset($planeInverse[$i][$i]) ? $sigmaH * sqrt(max(0.0, $planeInverse[$i][$i])) : null;
        }

        return new Fit(
            $localization, $rows, $sd, $sigma, $sigmaH, $redundancy, max(0, $redundancyH),
            self::suspect($rows, $plan, $heights, $redundancy, $redundancyH, $sum, $sumH, $choices),
            self::hull($plan),
        );
    }

    /**
     * @param list<Pair> $plan
     * @param list<Pair> $heights
     */
    private static function check(array $plan, array $heights, Choices $choices): void
    {
        foreach ([...$plan, ...$heights] as $pair) {
            foreach ([$pair->localE, $pair->localN, $pair->localH ?? 0.0, $pair->gridE, $pair->gridN, $pair->gridH ?? 0.0] as $value) {
                if (!is_finite($value)) {
                    throw new UnusablePairs(\sprintf('pair %s has a coordinate that is not a number', $pair->name));
                }
            }
        }
        if (null !== $choices->scale && ($choices->scale <= 0.0 || !is_finite($choices->scale))) {
            throw new UnusablePairs(\sprintf('a held scale of %s is not possible; it lies near 1', $choices->scale));
        }
        $need = (int) ceil($choices->fitted() / 2);
        if (\count($plan) < max(1, $need)) {
            throw new UnusablePairs(\sprintf(
                '%d pairs give %d equations; %d parameters are fitted and need %d pairs at least. Add pairs or hold parameters',
                \count($plan), 2 * \count($plan), $choices->fitted(), max(1, $need),
            ));
        }
        if (\count($heights) < $choices->verticalFitted()) {
            throw new UnusablePairs(\sprintf(
                '%d pairs have heights on both sides; a vertical %s needs %d. Add heights, or choose a simpler vertical part',
                \count($heights),
                $choices->vertical,
                $choices->verticalFitted(),
            ));
        }
        for ($i = 0, $n = \count($plan); $i < $n; ++$i) {
            for ($j = 0; $j < $i; ++$j) {
                $local = hypot($plan[$i]->localE - $plan[$j]->localE, $plan[$i]->localN - $plan[$j]->localN);
                $grid = hypot($plan[$i]->gridE - $plan[$j]->gridE, $plan[$i]->gridN - $plan[$j]->gridN);
                if ($local < self::SAME_PLACE || $grid < self::SAME_PLACE) {
                    throw new UnusablePairs(\sprintf(
                        'pairs %s and %s are the same place on the %s side; leave one out', $plan[$j]->name,
                        $plan[$i]->name, $local < self::SAME_PLACE ? 'local' : 'grid',
                    ));
                }
            }
        }
        if (Choices::PLANE === $choices->vertical) {
            self::refuseCollinear($heights);
        }
    }

    /** @param list<Pair> $heights */
    private static function refuseCollinear(array $heights): void
    {
        $n = \count($heights);
        $mx = array_sum(array_map(static fn (Pair $p): float => $p->localE, $heights)) / $n;
        $my = array_sum(array_map(static fn (Pair $p): float => $p->localN, $heights)) / $n;
        $xx = $yy = $xy = 0.0;
        foreach ($heights as $p) {
            $xx += ($p->localE - $mx) ** 2;
            $yy += ($p->localN - $my) ** 2;
            $xy += ($p->localE - $mx) * ($p->localN - $my);
        }
        $narrow = 0.5 * ($xx + $yy - sqrt(($xx - $yy) ** 2 + 4.0 * $xy * $xy));
        if ($narrow <= 1e-6 * ($xx + $yy)) {
            throw new UnusablePairs(
                'the pairs with heights lie on one line; a tilted plane cannot be fitted to them. Choose a vertical shift',
            );
        }
    }

    /**
     * @param list<Pair> $plan
     *
     * @return array{
     *     array{float, float, float, float}, list<list<float>>, list<array{float, float}>, list<array{float, float}>,
     * } shifts, rotation (radians), scale; inverse normal matrix of the fitted; residuals; redundancy numbers
     */
    private static function horizontal(array $plan, Choices $choices, float $centreE, float $centreN): array
    {
        $p = self::start($plan, $choices, $centreE, $centreN);
        $free = array_keys(array_filter([
            null === $choices->shiftE, null === $choices->shiftN, null === $choices->rotationDegrees,
            null === $choices->scale,
        ]));
        $inverse = [];
        for ($iteration = 0; $iteration < 30; ++$iteration) {
            $k = \count($free);
            $normal = array_fill(0, $k, array_fill(0, $k, 0.0));
            $right = array_fill(0, $k, 0.0);
            foreach ($plan as $pair) {
                [$jacobian, $misclosure] = self::equations($pair, $p, $centreE, $centreN);
                for ($c = 0; $c < 2; ++$c) {
                    foreach ($free as $a => $i) {
                        $right[$a] += $jacobian[$c][$i] * $misclosure[$c];
                        foreach ($free as $b => $j) {
                            $normal[$a][$b] += $jacobian[$c][$i] * $jacobian[$c][$j];
                        }
                    }
                }
            }
            if (0 === $k) {
                break;
            }
            $inverse = self::inverse($normal);
            $largest = 0.0;
            foreach ($free as $a => $i) {
                $step = 0.0;
                for ($b = 0; $b < $k; ++$b) {
                    $step += $inverse[$a][$b] * $right[$b];
                }
                $p[$i] += $step;
                $largest = max($largest, abs($step) * ($i < 2 ? 1.0 : 1e4));
            }
            if ($largest < 1e-10) {
                break;
            }
        }
        $residuals = $redundancies = [];
        foreach ($plan as $pair) {
            [$jacobian, $misclosure] = self::equations($pair, $p, $centreE, $centreN);
            $residuals[] = [-$misclosure[0], -$misclosure[1]];
            $r = [1.0, 1.0];
            for ($c = 0; $c < 2; ++$c) {
                foreach ($free as $a => $i) {
                    foreach ($free as $b => $j) {
                        $r[$c] -= $jacobian[$c][$i] * $inverse[$a][$b] * $jacobian[$c][$j];
                    }
                }
            }
            $redundancies[] = [$r[0], $r[1]];
        }

        return [$p, $inverse, $residuals, $redundancies];
    }

    /**
     * @param array{float, float, float, float} $p
     *
     * @return array{
     *     array{array{float, float, float, float}, array{float, float, float, float}}, array{float, float},
     * } derivatives of E and N; given less computed
     */
    private static function equations(Pair $pair, array $p, float $centreE, float $centreN): array
    {
        $x = $pair->localE - $centreE;
        $y = $pair->localN - $centreN;
        $c = cos($p[2]);
        $s = sin($p[2]);
        $u = $c * $x + $s * $y;
        $v = -$s * $x + $c * $y;

        return [
            [[1.0, 0.0, $p[3] * $v, $u], [0.0, 1.0, -$p[3] * $u, $v]],
            [$pair->gridE - ($centreE + $p[0] + $p[3] * $u), $pair->gridN - ($centreN + $p[1] + $p[3] * $v)],
        ];
    }

    /**
     * @param list<Pair> $plan
     *
     * @return array{float, float, float, float}
     */
    private static function start(array $plan, Choices $choices, float $centreE, float $centreN): array
    {
        $n = \count($plan);
        $gridE = array_sum(array_map(static fn (Pair $p): float => $p->gridE, $plan)) / $n;
        $gridN = array_sum(array_map(static fn (Pair $p): float => $p->gridN, $plan)) / $n;
        $a = $b = $q = 0.0;
        foreach ($plan as $p) {
            $x = $p->localE - $centreE;
            $y = $p->localN - $centreN;
            $u = $p->gridE - $gridE;
            $v = $p->gridN - $gridN;
            $a += $x * $u + $y * $v;
            $b += $y * $u - $x * $v;
            $q += $x * $x + $y * $y;
        }
        $shiftsHeld = null !== $choices->shiftE && null !== $choices->shiftN;
        if ($shiftsHeld && (1 === $n || 0.0 === $q)) {
            $a = 1.0;
            $b = 0.0;
        }
        $rotation = null === $choices->rotationDegrees ? ($n > 1 ? atan2($b, $a) : 0.0) : deg2rad($choices->rotationDegrees);
        $scale = $choices->scale ?? ($n > 1 && $q > 0.0 ? max(1e-6, hypot($a, $b) / $q) : 1.0);

        return [$choices->shiftE ?? $gridE - $centreE, $choices->shiftN ?? $gridN - $centreN, $rotation, $scale];
    }

    /**
     * @param list<Pair> $heights
     *
     * @return array{
     *     array{float, float, float}, list<list<float>>, list<float>, list<float>,
     * } plane; inverse normal matrix; residuals; redundancy numbers
     */
    private static function vertical(array $heights, Choices $choices, float $centreE, float $centreN): array
    {
        $k = $choices->verticalFitted();
        if (0 === $k || [] === $heights) {
            return [[0.0, 0.0, 0.0], [], [], []];
        }
        $rows = $difference = [];
        foreach ($heights as $pair) {
            $rows[] = \array_slice([1.0, $pair->localE - $centreE, $pair->localN - $centreN], 0, $k);
            $difference[] = (float) $pair->gridH - (float) $pair->localH;
        }
        $normal = array_fill(0, $k, array_fill(0, $k, 0.0));
        $right = array_fill(0, $k, 0.0);
        foreach ($rows as $r => $row) {
            for ($i = 0; $i < $k; ++$i) {
                $right[$i] += $row[$i] * $difference[$r];
                for ($j = 0; $j < $k; ++$j) {
                    $normal[$i][$j] += $row[$i] * $row[$j];
                }
            }
        }
        $inverse = self::inverse($normal);
        $plane = [0.0, 0.0, 0.0];
        for ($i = 0; $i < $k; ++$i) {
            for ($j = 0; $j < $k; ++$j) {
                $plane[$i] += $inverse[$i][$j] * $right[$j];
            }
        }
        $residuals = $redundancies = [];
        foreach ($rows as $r => $row) {
            $computed = 0.0;
            $leverage = 0.0;
            for ($i = 0; $i < $k; ++$i) {
                $computed += $plane[$i] * $row[$i];
                for ($j = 0; $j < $k; ++$j) {
                    $leverage += $row[$i] * $inverse[$i][$j] * $row[$j];
                }
            }
            $residuals[] = $computed - $difference[$r];
            $redundancies[] = 1.0 - $leverage;
        }

        return [$plane, $inverse, $residuals, $redundancies];
    }

    /**
     * Pairs whose mirror image fits far better have east and north swapped, or one axis turned round, on one side.
     *
     * @param list<Pair> $plan
     */
    private static function refuseReflection(array $plan, Choices $choices, float $sum, Localization $localization): void
    {
        if (\count($plan) < 3) {
            return;
        }
        $mirrored = array_map(static fn (Pair $p): Pair => new Pair(
            $p->name, 2.0 * $localization->centreE - $p->localE, $p->localN, null, $p->gridE, $p->gridN, null,
        ), $plan);
        $free = new Choices(null, null, null, null, Choices::NONE);
        $spread = 0.0;
        foreach ($plan as $p) {
            $spread += ($p->localE - $localization->centreE) ** 2 + ($p->localN - $localization->centreN) ** 2;
        }
        [, , $residuals] = self::horizontal($mirrored, $free, $localization->centreE, $localization->centreN);
        $other = 0.0;
        foreach ($residuals as [$e, $n]) {
            $other += $e * $e + $n * $n;
        }
        if ($other < 0.01 * $sum && $sum > 1e-4 * $spread) {
            throw new UnusablePairs(
                'the pairs fit far better mirrored: east and north are swapped, or one axis is turned round, on one '
                    .'side. Check the columns',
            );
        }
    }

    /**
     * Pairs, residuals, redundancy numbers and the standard deviation of one coordinate, in plan and in height.
     *
     * @param list<Pair>                                                                               $pairs
     * @param array{list<Pair>, list<array{float, float}>, list<array{float, float}>, ?float} $inPlan
     * @param array{list<Pair>, list<float>, list<float>, ?float}                                      $inHeight
     *
     * @return list<Row>
     */
    private static function rows(array $pairs, array $inPlan, array $inHeight, Choices $choices): array
    {
        [$plan, $residuals, $redundancies, $sigma] = $inPlan;
        [$heights, $vertical, $verticalRedundancies, $sigmaH] = $inHeight;
        $rows = [];
        foreach ($pairs as $pair) {
            $i = array_search($pair, $plan, true);
            $j = array_search($pair, $heights, true);
            $v = false === $i ? null : $residuals[$i];
            $standardized = null;
            if (false !== $i && null !== $sigma && $sigma > 1e-12) {
                $parts = [0.0];
                foreach ([0, 1] as $c) {
                    if ($redundancies[$i][$c] > 1e-9) {
                        $parts[] = abs($residuals[$i][$c]) / ($sigma * sqrt($redundancies[$i][$c]));
                    }
                }
                $standardized = max($parts);
            }
            $rows[] = [
                'name' => $pair->name, 'e' => $v[0] ?? null, 'n' => $v[1] ?? null, 'h' => false === $j ? null : $vertical[$j],
                'horizontal' => null === $v ? null : hypot($v[0], $v[1]), 'standardized' => $standardized,
                'standardizedH' => false !== $j && null !== $sigmaH && $sigmaH > 1e-12 && $verticalRedundancies[$j] > 1e-9
                    ? abs($vertical[$j]) / ($sigmaH * sqrt($verticalRedundancies[$j]))
                    : null,
                'without' => self::without($pair, $plan, $heights, $choices),
            ];
        }

        return $rows;
    }

    /**
     * What the fit of all other pairs says of one, less what is given for it.
     *
     * @param list<Pair> $plan
     * @param list<Pair> $heights
     *
     * @return ?array{e: float, n: float, h: ?float}
     */
    private static function without(Pair $pair, array $plan, array $heights, Choices $choices): ?array
    {
        $others = array_values(array_filter($plan, static fn (Pair $p): bool => $p !== $pair));
        $otherHeights = array_values(array_filter($heights, static fn (Pair $p): bool => $p !== $pair));
        if (!\in_array($pair, $plan, true) || 2 * \count($others) < $choices->fitted() || [] === $others) {
            return null;
        }
        $centreE = array_sum(array_map(static fn (Pair $p): float => $p->localE, $plan)) / \count($plan);
        $centreN = array_sum(array_map(static fn (Pair $p): float => $p->localN, $plan)) / \count($plan);
        try {
            [$p] = self::horizontal($others, $choices, $centreE, $centreN);
            $plane = \count($otherHeights) >= $choices->verticalFitted()
                ? self::vertical($otherHeights, $choices, $centreE, $centreN)[0]
                : null;
        } catch (UnusablePairs) {
            return null;
        }
        $fit = new Localization($centreE, $centreN, $p[0], $p[1], rad2deg($p[2]), $p[3], $choices->vertical, $plane ?? [0.0, 0.0, 0.0]);
        [$e, $n] = $fit->toGrid($pair->localE, $pair->localN);
        $h = null !== $plane && $pair->hasHeights() && $choices->verticalFitted() > 0
            ? $fit->heightToGrid($pair->localE, $pair->localN, (float) $pair->localH) - (float) $pair->gridH
            : null;

        return ['e' => $e - $pair->gridE, 'n' => $n - $pair->gridN, 'h' => $h];
    }

    /**
     * The pair without which the rest fits best, when the test of its externally studentized misfit is significant.
     *
     * @param list<Row>  $rows
     * @param list<Pair> $plan
     * @param list<Pair> $heights
     *
     * @return ?array{name: string, part: string, sigma: float, sigmaWithout: float, off: list<float>}
     */
    private static function suspect(
        array $rows,
        array $plan,
        array $heights,
        int $redundancy,
        int $redundancyH,
        float $sum,
        float $sumH,
        Choices $choices,
    ): ?array {
        $best = null;
        $strongest = 0.0;
        foreach ($rows as $row) {
            if (null === $row['without'] || null === $row['e']) {
                continue;
            }
            if ($redundancy > 2) {
                $others = array_values(array_filter($plan, static fn (Pair $p): bool => $p->name !== $row['name']));
                $rest = self::sumWithout($others, $choices);
                // F statistic of the two coordinates this pair adds, against what is left without it.
                $f = null === $rest ? 0.0 : (($sum - $rest) / 2.0) / max(1e-12, $rest / ($redundancy - 2));
                if (sqrt($f) > self::CRITICAL && $sum > 1e-8 && $strongest < $f) {
                    $strongest = $f;
                    $best = [
                        'name' => $row['name'], 'part' => 'horizontal', 'sigma' => sqrt($sum / $redundancy),
                        'sigmaWithout' => sqrt(($rest ?? 0.0) / ($redundancy - 2)),
                        'off' => [-$row['without']['e'], -$row['without']['n']],
                    ];
                }
            }
            if ($redundancyH > 1 && null !== $row['without']['h'] && null !== $row['h']) {
                $others = array_values(array_filter($heights, static fn (Pair $p): bool => $p->name !== $row['name']));
                $rest = array_sum(array_map(
                    static fn (float $v): float => $v * $v,
                    self::vertical($others, $choices, $plan[0]->localE, $plan[0]->localN)[2],
                ));
                $f = ($sumH - $rest) / max(1e-12, $rest / ($redundancyH - 1));
                if (sqrt($f) > 1.4 * self::CRITICAL && $sumH > 1e-8 && $strongest < $f) {
                    $strongest = $f;
                    $best = [
                        'name' => $row['name'], 'part' => 'height', 'sigma' => sqrt($sumH / $redundancyH),
                        'sigmaWithout' => sqrt($rest / ($redundancyH - 1)), 'off' => [-$row['without']['h']],
                    ];
                }
            }
        }

        return $best;
    }

    /** @param list<Pair> $plan */
    private static function sumWithout(array $plan, Choices $choices): ?float
    {
        if (2 * \count($plan) <= $choices->fitted()) {
            return null;
        }
        $centreE = array_sum(array_map(static fn (Pair $p): float => $p->localE, $plan)) / \count($plan);
        $centreN = array_sum(array_map(static fn (Pair $p): float => $p->localN, $plan)) / \count($plan);
        [, , $residuals] = self::horizontal($plan, $choices, $centreE, $centreN);
        $sum = 0.0;
        foreach ($residuals as [$e, $n]) {
            $sum += $e * $e + $n * $n;
        }

        return $sum;
    }

    /**
     * @param list<list<float>> $normal
     *
     * @return list<list<float>>
     */
    private static function inverse(array $normal): array
    {
        // Shifts, rotation and scale differ by the size of the site: scale to a unit diagonal first.
        $d = [];
        foreach ($normal as $i => $row) {
            if ($row[$i] <= 0.0) {
                throw new UnusablePairs(
                    'the pairs do not determine all parameters that are fitted; hold one more, or add a pair farther away',
                );
            }
            $d[] = sqrt($row[$i]);
        }
        foreach ($normal as $i => $row) {
            foreach ($row as $j => $value) {
                $normal[$i][$j] = $value / ($d[$i] * $d[$j]);
            }
        }
        $inverse = Dense::inverse($normal) ??
            throw new UnusablePairs('the pairs do not determine all parameters that are fitted; hold one more, or add a pair farther away');
        foreach ($inverse as $i => $row) {
            foreach ($row as $j => $value) {
                $inverse[$i][$j] = $value / ($d[$i] * $d[$j]);
            }
        }

        return $inverse;
    }

    /**
     * Andrew's monotone chain, anticlockwise.
     *
     * @param list<Pair> $plan
     *
     * @return list<array{float, float}>
     */
    private static function hull(array $plan): array
    {
        $points = array_map(static fn (Pair $p): array => [$p->localE, $p->localN], $plan);
        sort($points);
        if (\count($points) < 3) {
            return $points;
        }
        $half = static function (array $points): array {
            $chain = [];
            foreach ($points as $p) {
                while (($k = \count($chain)) >= 2
                    && ($chain[$k - 1][0] - $chain[$k - 2][0]) * ($p[1] - $chain[$k - 2][1])
                        - ($chain[$k - 1][1] - $chain[$k - 2][1]) * ($p[0] - $chain[$k - 2][0]) <= 0.0
                ) {
                    array_pop($chain);
                }
                $chain[] = $p;
            }
            array_pop($chain);

            return $chain;
        };

        return [...$half($points), ...$half(array_reverse($points))];
    }
}
