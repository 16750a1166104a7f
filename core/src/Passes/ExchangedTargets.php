<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** Two control targets whose names were exchanged: each is seen where the other is given; drives are metres off at most. */
final readonly class ExchangedTargets
{
    /** Metres a sighting is off before it is asked, and what part of that may be left when the two are exchanged. */
    private const FAR = 1.0;
    private const LEFT = 0.25;

    /**
     * @param list<Sighting> $sightings
     *
     * @return ?array{int, int} the two sightings, in the order of the list; null where none are
     */
    public static function of(array $sightings): ?array
    {
        $off = static fn (Sighting $s, Sighting $given): float => hypot(
            hypot($given->given[0] - $s->seen[0], $given->given[1] - $s->seen[1]), $given->given[2] - $s->seen[2],
        );
        $far = array_filter($sightings, static fn (Sighting $s): bool => $s->isControl && $off($s, $s) > self::FAR);
        foreach ($far as $i => $a) {
            foreach ($far as $j => $b) {
                $mayBe = $i < $j && $a->target !== $b->target && $a->pass === $b->pass;
                if ($mayBe && $off($a, $b) < self::LEFT * $off($a, $a) && $off($b, $a) < self::LEFT * $off($b, $b)) {
                    return [$i, $j];
                }
            }
        }

        return null;
    }
}
