<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** A pass registered to control: a knot at each sighting of a control target, those within a second of the one before together. */
final readonly class ControlKnots
{
    private const TOGETHER = 1.0;

    /** @param array<int, int> $knotOf knot by number of the sighting */
    private function __construct(public Correction $correction, public array $knotOf)
    {
    }

    /** @param list<Sighting> $sightings of all passes */
    public static function of(int $pass, array $sightings): self
    {
        $own = array_filter($sightings, static fn (Sighting $s): bool => $s->isControl && $s->pass === $pass);
        uasort($own, static fn (Sighting $a, Sighting $b): int => $a->time <=> $b->time);
        $groups = $knotOf = [];
        $last = -\INF;
        foreach ($own as $k => $sighting) {
            if ($sighting->time - $last >= self::TOGETHER) {
                $groups[] = [];
            }
            $knotOf[$k] = \count($groups) - 1;
            $groups[$knotOf[$k]][] = $sighting;
            $last = $sighting->time;
        }
        $times = $shifts = [];
        foreach ($groups as $group) {
            $mean = static fn (\Closure $of): float => array_sum(array_map($of, $group)) / \count($group);
            $times[] = $mean(static fn (Sighting $s): float => $s->time);
            $shift = static fn (int $axis): float => $mean(static fn (Sighting $s): float => $s->before()[$axis]);
            $shifts[] = [$shift(0), $shift(1), $shift(2)];
        }

        return new self(new Correction($times, $shifts), $knotOf);
    }

    /** What the others say where one sighting is; null for one that nobody else says anything about. */
    public function without(int $sighting): ?Correction
    {
        return \count($this->correction->times) < 2 ? null : $this->correction->without($this->knotOf[$sighting]);
    }
}
