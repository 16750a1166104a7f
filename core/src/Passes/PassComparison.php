<?php

declare(strict_types=1);

namespace Mensura\Passes;

use Mensura\Cloud\PlaneField;

/**
 * A pass laid onto the reference pass: at stations along it the shift of its scan onto the surface the other one stands for, and
 * the function of time through the shifts that can be trusted. Each shift is that at the station's own time: what its points show
 * is held against the function, not against one shift for all of them.
 */
final readonly class PassComparison
{
    public const CORRECTED = 'corrected';
    public const NO_OVERLAP = 'no-overlap';
    public const NEEDS_PRE_SHIFT = 'needs-pre-shift';

    private const LEAST_POINTS = 100;
    private const LEAST_REFERENCE = 0.1;
    private const LEAST_USED = 1.0 / 3.0;
    /** A shift this far from those of both its neighbours, in a component, is taken for a wrong one. Metres. */
    private const STEP = 0.15;
    private const SWEEPS = 4;

    /** @param list<Station> $stations */
    private function __construct(
        public string $status, public ?string $reason, public array $stations, public Correction $correction, public ?float $rmsBefore,
        public ?float $rmsAfter,
    ) {
    }

    /**
     * @param list<Station>                $stations of the pass
     * @param ?PlaneField                  $field    of the reference, from an origin; null where it has no points
     * @param array{float, float, float}   $origin
     * @param ?\Closure(float): void       $progress parts of the whole
     */
    public static function of(
        Pass $pass, array $stations, StationPoints $points, ?PlaneField $field, float $radius, array $origin, ?\Closure $progress = null,
    ): self {
        $shifting = null === $field ? null : new StationShift($field, $radius);
        foreach ($stations as $k => $station) {
            $station->points = $points->count($k);
            $station->reason = match (true) {
                $station->points < self::LEAST_POINTS => Station::NO_POINTS,
                null === $field || null === $shifting => Station::NO_REFERENCE,
                default => self::place($station, $points->of($k), $field, $shifting, $origin, $pass->preShift),
            };
            null === $progress || $progress(($k + 1) / \count($stations));
        }
        self::leaveOutliersOut($stations);
        $near = array_filter($stations, static fn (Station $s): bool => $s->hasReference());
        $used = array_filter($stations, static fn (Station $s): bool => $s->isUsed());
        if (null === $field || null === $shifting || [] === $near) {
            $words = null === $field ? 'the reference pass has no points' : 'no station has points of the reference pass near its own';

            return new self(self::NO_OVERLAP, $words, $stations, Correction::none(), null, null);
        }
        if (\count($used) < self::LEAST_USED * \count($near)) {
            $words = self::tooFew($near, \count($used));
            foreach ($used as $station) {
                $station->reason = StationShift::AGREEMENT;
            }

            return new self(self::NEEDS_PRE_SHIFT, $words, $stations, Correction::none(), null, null);
        }
        $correction = self::swept($used, $points, $shifting, $origin);
        [$before, $after] = self::judged($stations, $points, $field, $shifting, $correction, $origin, $pass->preShift);

        return new self(self::CORRECTED, null, $stations, $correction, $before, $after);
    }

    /** @param array<int, Station> $near */
    private static function tooFew(array $near, int $used): string
    {
        $reasons = array_count_values(array_map(static fn (Station $s): string => $s->reason ?? 'used', $near));
        arsort($reasons);
        $counts = array_map(static fn (string $reason, int $n): string => "$n $reason", array_keys($reasons), $reasons);

        return \sprintf(
            'of %d stations with reference points only %d can be used (%s): give a pre-shift, the same place picked in both passes',
            \count($near), $used, implode(', ', $counts),
        );
    }

    /**
     * @param array{list<float>, list<float>, list<float>, list<float>} $points
     * @param array{float, float, float}                                $origin
     * @param array{float, float, float}                                $preShift
     */
    private static function place(
        Station $station, array $points, PlaneField $field, StationShift $shifting, array $origin, array $preShift,
    ): ?string {
        $local = self::local($points, $origin, $preShift);
        $near = 0;
        foreach ($local[0] as $i => $x) {
            $near += $field->isNear($x, $local[1][$i], $local[2][$i]) ? 1 : 0;
        }
        if ($near < self::LEAST_REFERENCE * \count($local[0])) {
            return Station::NO_REFERENCE;
        }
        $fit = $shifting->find(...$local);
        $station->shift = [$preShift[0] + $fit->shift[0], $preShift[1] + $fit->shift[1], $preShift[2] + $fit->shift[2]];
        $station->sd = $fit->sd;

        return $fit->doubt ?? (null === $fit->sd ? StationShift::GEOMETRY : null);
    }

    /**
     * The worst first, for a wrong one makes its neighbours look wrong; what then agrees with a neighbour is taken back.
     *
     * @param list<Station> $stations
     */
    private static function leaveOutliersOut(array $stations): void
    {
        while (true) {
            $used = array_values(array_filter($stations, static fn (Station $s): bool => $s->isUsed()));
            $worst = null;
            $most = [0, 0.0];
            foreach ($used as $k => $station) {
                $off = self::offNeighbours($station, $used[$k - 1] ?? null, $used[$k + 1] ?? null);
                if (null !== $off && [\count($off), min($off)] > $most) {
                    [$worst, $most] = [$station, [\count($off), min($off)]];
                }
            }
            if (null === $worst) {
                break;
            }
            $worst->reason = Station::OUTLIER;
        }
        foreach ($stations as $k => $station) {
            if (Station::OUTLIER === $station->reason) {
                $before = array_filter(\array_slice($stations, 0, $k), static fn (Station $s): bool => $s->isUsed());
                $after = array_filter(\array_slice($stations, $k + 1), static fn (Station $s): bool => $s->isUsed());
                $isLone = [] === $before && [] === $after;
                if (!$isLone && null === self::offNeighbours($station, end($before) ?: null, reset($after) ?: null)) {
                    $station->reason = null;
                }
            }
        }
    }

    /** @return ?non-empty-list<float> how far from each neighbour; null where it is near one, or has none */
    private static function offNeighbours(Station $station, ?Station ...$neighbours): ?array
    {
        $off = [];
        foreach ($neighbours as $neighbour) {
            if (null !== $neighbour) {
                [$a, $b] = [$station->shift ?? [0.0, 0.0, 0.0], $neighbour->shift ?? [0.0, 0.0, 0.0]];
                $off[] = max(abs($a[0] - $b[0]), abs($a[1] - $b[1]), abs($a[2] - $b[2]));
            }
        }

        return [] === $off || min($off) <= self::STEP ? null : $off;
    }

    /**
     * @param array<int, Station>        $used
     * @param array{float, float, float} $origin
     */
    private static function swept(array $used, StationPoints $points, StationShift $shifting, array $origin): Correction
    {
        $correction = self::through($used);
        for ($sweep = 0; $sweep < self::SWEEPS; ++$sweep) {
            $found = [];
            foreach ($used as $k => $station) {
                $fit = $shifting->fit(self::local($points->of($k), $origin, $correction), [0.0, 0.0, 0.0]);
                $found[$k] = [$station->shift ?? [0.0, 0.0, 0.0], $fit];
            }
            foreach ($found as $k => [$shift, $fit]) {
                $used[$k]->shift = [$shift[0] + $fit->shift[0], $shift[1] + $fit->shift[1], $shift[2] + $fit->shift[2]];
                $used[$k]->sd = $fit->sd ?? $used[$k]->sd;
            }
            $correction = self::through($used);
        }

        return $correction;
    }

    /**
     * Distances from the surface of the points that agree with it in the end, before and after; of a station left out by its own shift.
     *
     * @param list<Station>              $stations
     * @param array{float, float, float} $origin
     * @param array{float, float, float} $preShift
     *
     * @return array{float, float} of all that are used
     */
    private static function judged(
        array $stations, StationPoints $points, PlaneField $field, StationShift $shifting, Correction $correction, array $origin,
        array $preShift,
    ): array {
        $sums = [0.0, 0.0, 0];
        foreach ($stations as $k => $station) {
            if (null === $station->shift) {
                continue;
            }
            $own = $points->of($k);
            [, $after] = $field->distances(...self::local($own, $origin, $station->isUsed() ? $correction : $station->shift));
            [, $before] = $field->distances(...self::local($own, $origin, $preShift));
            [$a, $b, $n] = [0.0, 0.0, 0];
            foreach ($shifting->agreeing($after) as $i) {
                if (\INF !== $before[$i]) {
                    $a += $after[$i] ** 2;
                    $b += $before[$i] ** 2;
                    ++$n;
                }
            }
            if ($n > 0) {
                [$station->rmsBefore, $station->rmsAfter] = [sqrt($b / $n), sqrt($a / $n)];
                $sums = $station->isUsed() ? [$sums[0] + $b, $sums[1] + $a, $sums[2] + $n] : $sums;
            }
        }
        $n = max(1, $sums[2]);

        return [sqrt($sums[0] / $n), sqrt($sums[1] / $n)];
    }

    /** @param array<int, Station> $used */
    private static function through(array $used): Correction
    {
        $times = $shifts = [];
        foreach ($used as $station) {
            $times[] = $station->time;
            $shifts[] = $station->shift ?? [0.0, 0.0, 0.0];
        }

        return new Correction($times, $shifts);
    }

    /**
     * @param array{list<float>, list<float>, list<float>, list<float>} $points
     * @param array{float, float, float}                                $origin
     * @param Correction|array{float, float, float}                     $shift
     *
     * @return array{list<float>, list<float>, list<float>} from the origin, moved
     */
    private static function local(array $points, array $origin, Correction|array $shift): array
    {
        [$t, $x, $y, $z] = $points;
        foreach ($t as $i => $time) {
            [$dx, $dy, $dz] = $shift instanceof Correction ? $shift->at($time) : $shift;
            $x[$i] += $dx - $origin[0];
            $y[$i] += $dy - $origin[1];
            $z[$i] += $dz - $origin[2];
        }

        return [$x, $y, $z];
    }
}
