<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Which occupations recorded together, and which baselines between them are independent: of n receivers that recorded at one
 * time, n - 1 carry all there is, the shortest ones best.
 */
final class Overlaps
{
    /** Less common time makes no baseline, seconds. */
    public const LEAST = 120.0;

    /** @var list<array{a: int, b: int, from: float, to: float, session: int, independent: bool, length: ?float}> pairs of occupations */
    public array $pairs = [];

    /** How many times of recording there are. */
    public int $sessions = 0;

    /**
     * @param list<array{name: string, from: float, to: float, place: ?array{float, float, float}}> $occupations seconds, metres geocentric
     */
    public function __construct(array $occupations)
    {
        $sets = self::cliques($occupations);
        $this->sessions = \count($sets);
        foreach ($occupations as $i => $a) {
            foreach ($occupations as $j => $b) {
                $from = max($a['from'], $b['from']);
                $to = min($a['to'], $b['to']);
                if ($j <= $i || $a['name'] === $b['name'] && '' !== $a['name'] || $to - $from < self::LEAST) {
                    continue;
                }
                $this->pairs[] = [
                    'a' => $i, 'b' => $j, 'from' => $from, 'to' => $to, 'session' => self::session($sets, $i, $j), 'independent' => false,
                    'length' => null === $a['place'] || null === $b['place'] ? null : Horizon::distance($a['place'], $b['place']),
                ];
            }
        }
        usort($this->pairs, static fn (array $p, array $q): int => [$p['session'], $p['from'], $p['a'], $p['b']]
            <=> [$q['session'], $q['from'], $q['a'], $q['b']]);
        foreach (array_keys($sets) as $session) {
            $this->choose($session);
        }
    }

    /** A tree of the shortest of a session's pairs (Kruskal 1956). */
    private function choose(int $session): void
    {
        $order = array_keys(array_filter($this->pairs, static fn (array $p): bool => $p['session'] === $session));
        usort($order, fn (int $p, int $q): int => [$this->pairs[$p]['length'] ?? \INF, $p] <=> [$this->pairs[$q]['length'] ?? \INF, $q]);
        $part = [];
        foreach ($order as $p) {
            $a = $this->pairs[$p]['a'];
            $b = $this->pairs[$p]['b'];
            $one = $part[$a] ??= $a;
            $two = $part[$b] ??= $b;
            if ($one === $two) {
                continue;
            }
            $this->pairs[$p]['independent'] = true;
            foreach ($part as $k => $of) {
                $part[$k] = $of === $two ? $one : $of;
            }
        }
    }

    /**
     * Greatest sets that all recorded at one instant, by time.
     *
     * @param list<array{name: string, from: float, to: float, place: ?array{float, float, float}}> $occupations
     *
     * @return list<list<int>>
     */
    private static function cliques(array $occupations): array
    {
        $ends = [];
        foreach ($occupations as $i => $o) {
            $ends[] = [$o['from'] + self::LEAST / 2.0, 1, $i];
            $ends[] = [$o['to'] - self::LEAST / 2.0, 0, $i];
        }
        usort($ends, static fn (array $a, array $b): int => $a <=> $b);
        $now = $sets = [];
        $grew = false;
        foreach ($ends as [, $begins, $i]) {
            if (1 === $begins) {
                $now[$i] = true;
                $grew = true;
                continue;
            }
            if ($grew && \count($now) > 1) {
                $sets[] = array_keys($now);
            }
            $grew = false;
            unset($now[$i]);
        }

        return $sets;
    }

    /** @param list<list<int>> $sets the first in which both are */
    private static function session(array $sets, int $i, int $j): int
    {
        foreach ($sets as $s => $set) {
            if (\in_array($i, $set, true) && \in_array($j, $set, true)) {
                return $s;
            }
        }

        return 0;
    }
}
