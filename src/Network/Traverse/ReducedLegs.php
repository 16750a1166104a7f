<?php

declare(strict_types=1);

namespace App\Network\Traverse;

use App\Network\Places;
use Mensura\TotalStation\ReducedSetup;

/** What the reduced set-ups of a project say of angles and lengths between its marks. Degrees; grid metres. */
final class ReducedLegs
{
    /** @var array<string, list<array<string, float>>> per station, per set-up: direction by target */
    private array $directions = [];

    /** @var array<string, array<string, list<float>>> by station and target: horizontal distance on the grid */
    private array $lengths = [];

    /** @var array<string, array<string, int>> by station and target: sights in both faces, or single ones */
    private array $sights = [];

    /** @param iterable<array{ReducedSetup, float}> $setups with the height of the instrument */
    public function __construct(iterable $setups, Places $places)
    {
        foreach ($setups as [$setup, $hi]) {
            $x = $y = [];
            foreach ($setup->targets as $t) {
                // The same target at several heights: the mean of its directions.
                $x[$t->target] = ($x[$t->target] ?? 0.0) + $t->pointings * cos(deg2rad($t->direction));
                $y[$t->target] = ($y[$t->target] ?? 0.0) + $t->pointings * sin(deg2rad($t->direction));
                $n = 'both' === $t->faces ? max(1, intdiv($t->pointings, 2)) : $t->pointings;
                $this->sights[$setup->station][$t->target] = ($this->sights[$setup->station][$t->target] ?? 0) + $n;
                if (null !== $t->horizontal) {
                    $reduction = $places->reduction($setup->station, $t->target, $hi);
                    $this->lengths[$setup->station][$t->target][] = $t->horizontal
                        * (null === $reduction ? 1.0 : $reduction->toEllipsoid * $reduction->toGrid);
                }
            }
            $own = [];
            foreach ($x as $target => $c) {
                $own[(string) $target] = rad2deg(atan2($y[$target], $c));
            }
            $this->directions[$setup->station][] = $own;
        }
    }

    public function isOccupied(string $station): bool
    {
        return isset($this->directions[$station]);
    }

    public function isSighted(string $station, string $target): bool
    {
        return isset($this->sights[$station][$target]);
    }

    /** @return list<string> sighted from a station */
    public function targets(string $station): array
    {
        return array_map(strval(...), array_keys($this->sights[$station] ?? []));
    }

    /** Sights of a target from a station; a face pair counts once. */
    public function sights(string $station, string $target): int
    {
        return $this->sights[$station][$target] ?? 0;
    }

    /** @return list<string> stations occupied that see each other, one way measured at least */
    public function neighbours(string $station): array
    {
        return array_values(array_filter(
            array_map(strval(...), array_keys($this->sights[$station] ?? [])),
            fn (string $t): bool => $this->isOccupied($t) && $this->isSighted($t, $station) && null !== $this->length($station, $t),
        ));
    }

    /** Clockwise from one target to another, the mean of all set-ups that see both; null when none does. */
    public function angle(string $back, string $station, string $fore): ?float
    {
        $first = null;
        $sum = 0.0;
        $count = 0;
        foreach ($this->directions[$station] ?? [] as $d) {
            if (isset($d[$back], $d[$fore])) {
                $angle = fmod($d[$fore] - $d[$back] + 720.0, 360.0);
                $first ??= $angle;
                $sum += fmod($angle - $first + 540.0, 360.0) - 180.0;
                ++$count;
            }
        }

        return null === $first ? null : fmod($first + $sum / $count + 360.0, 360.0);
    }

    /** Mean of there and back; null when it was not measured. */
    public function length(string $from, string $to): ?float
    {
        $all = [...$this->lengths[$from][$to] ?? [], ...$this->lengths[$to][$from] ?? []];

        return [] === $all ? null : array_sum($all) / \count($all);
    }

    /** There less back; null when it was measured one way only. */
    public function thereLessBack(string $from, string $to): ?float
    {
        $there = $this->lengths[$from][$to] ?? [];
        $back = $this->lengths[$to][$from] ?? [];

        return [] === $there || [] === $back ? null : array_sum($there) / \count($there) - array_sum($back) / \count($back);
    }
}
