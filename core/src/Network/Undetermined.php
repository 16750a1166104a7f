<?php

declare(strict_types=1);

namespace Mensura\Network;

/** What the used observations leave open: stations and components by the directions in which they can move unnoticed. */
final class Undetermined
{
    /** Below this part of the largest shift in a direction a coordinate does not move. */
    private const MOVES = 1e-3;

    /** @var list<array<int, array<int, true>>> parts: components by station */
    private array $parts = [];

    /** @param list<array{int, int}> $owner of each unknown: station and component, or set and 3 */
    public function __construct(private readonly NetworkDefinition $network, private readonly array $owner)
    {
    }

    /** @param list<float> $direction shifts of the unknowns that no used observation notices */
    public function add(array $direction): void
    {
        $largest = 0.0;
        foreach ($this->owner as $k => [, $component]) {
            if ($component < 3) {
                $largest = max($largest, abs($direction[$k]));
            }
        }
        $part = [];
        foreach ($this->owner as $k => [$station, $component]) {
            if ($component < 3 && abs($direction[$k]) > self::MOVES * $largest) {
                $part[$station][$component] = true;
            }
        }
        // Directions that move the same stations are one part that hangs together.
        foreach ($this->parts as $i => $other) {
            if ([] !== array_intersect_key($part, $other)) {
                foreach ($other as $station => $components) {
                    $part[$station] = ($part[$station] ?? []) + $components;
                }
                unset($this->parts[$i]);
            }
        }
        $this->parts = [...array_values($this->parts), $part];
    }

    /** Each part: its stations, what is missing, what to do; null when nothing is open. */
    public function reason(): ?string
    {
        $sentences = [];
        foreach ($this->parts as $part) {
            $byNeed = [];
            foreach ($part as $station => $components) {
                $plan = isset($components[0]) || isset($components[1]);
                $byNeed[$plan && isset($components[2]) ? 'position' : ($plan ? 'plan position' : 'height')][] = $this->network
                    ->stations[$station]->id;
            }
            foreach ($byNeed as $need => $ids) {
                sort($ids, \SORT_NATURAL);
                $sentences[] = \sprintf(
                    '%s: %s not determined by the used observations; %s', Names::listed($ids), $need,
                    1 === \count($part)
                        ? 'add an observation that reaches it, hold it, or leave it out'
                        : 'hold or weight a station among them, or observe between them and the rest',
                );
            }
        }

        return [] === $sentences ? null : implode('. ', $sentences);
    }
}
