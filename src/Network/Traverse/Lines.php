<?php

declare(strict_types=1);

namespace App\Network\Traverse;

use App\Network\Places;
use App\Network\View\TraverseLineView;

/** Finds traverses: lines of stations that see their neighbours and nothing else, from control to control. */
final readonly class Lines
{
    private const MOST = 30;

    public function __construct(private ReducedLegs $legs, private Places $places)
    {
    }

    /**
     * @param list<string> $stations
     *
     * @return list<TraverseLineView>
     */
    public function found(array $stations): array
    {
        $lines = $seen = [];
        foreach ($stations as $start) {
            if (!$this->places->isControl($start)) {
                continue;
            }
            foreach ($this->legs->neighbours($start) as $second) {
                $names = $this->places->isControl($second) ? null : $this->walk($start, $second);
                if (null === $names || isset($seen[implode("\0", array_reverse($names))])) {
                    continue;
                }
                $seen[implode("\0", $names)] = true;
                $lines[] = $this->oriented($names);
            }
        }

        return \array_slice(array_values(array_filter($lines)), 0, self::MOST);
    }

    /**
     * The line with the control its ends are oriented by.
     *
     * @param list<string> $names
     */
    private function oriented(array $names): ?TraverseLineView
    {
        $back = $this->controlSeen($names[0], $names[1]);

        return null === $back ? null : new TraverseLineView(
            $back, $names, $this->controlSeen(end($names) ?: '', $names[\count($names) - 2]),
        );
    }

    private function controlSeen(string $station, string $not): ?string
    {
        $farthest = null;
        $most = 0.0;
        $own = $this->places->at($station);
        if (null === $own || !$this->legs->isOccupied($station)) {
            return null;
        }
        foreach ($this->legs->targets($station) as $target) {
            $place = $this->places->at($target);
            if ($target !== $not && null !== $place && $this->places->isControl($target)) {
                $length = hypot($place[0] - $own[0], $place[1] - $own[1]);
                if ($length > $most) {
                    [$farthest, $most] = [$target, $length];
                }
            }
        }

        return $farthest;
    }

    /** @return ?list<string> from control over stations with two neighbours to control, which may be the first again */
    private function walk(string $start, string $second): ?array
    {
        $names = [$start, $second];
        $on = [$second => true];
        while (true) {
            $at = $names[\count($names) - 1];
            $before = $names[\count($names) - 2];
            $next = array_values(array_filter($this->legs->neighbours($at), static fn (string $t): bool => $t !== $before));
            if (1 !== \count($next) || isset($on[$next[0]])) {
                return null;
            }
            $names[] = $next[0];
            if ($this->places->isControl($next[0])) {
                return $names;
            }
            $on[$next[0]] = true;
        }
    }
}
