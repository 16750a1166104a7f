<?php

declare(strict_types=1);

namespace Mensura\Matching;

use Mensura\Image\Lens;

/**
 * Points that several images show, from matches of pairs: one point through all images, no image showing it twice. Matches without which
 * a point of three images or more would fall apart are not trusted: two points are joined by one that is mistaken.
 */
final class TiePoints
{
    /** Pixels from the line of the other image within which a match agrees. */
    private const WITHIN = 2.0;

    /** @var array<int, int> by feature: another of the same point, or itself */
    private array $parent = [];

    /** @var array<int, list<int>> features matched with each */
    private array $joined = [];

    /** @var array<string, int> matches that agree, by pair "a b" */
    public array $agreed = [];

    /** @param list<Features> $features of each image */
    public function __construct(private readonly array $features)
    {
    }

    /**
     * Matches two images and joins what agrees.
     *
     * @param list<float> $ca camera of the first, as {@see Lens} has it
     * @param list<float> $cb
     *
     * @return int how many agree
     */
    public function join(int $a, int $b, array $ca, array $cb): int
    {
        [$f, $g] = [$this->features[$a], $this->features[$b]];
        $pairs = Matches::of($f, $g);
        $x1 = $y1 = $x2 = $y2 = [];
        foreach ($pairs as [$i, $j]) {
            [$x1[], $y1[]] = Lens::direction($ca, $f->x[$i], $f->y[$i]);
            [$x2[], $y2[]] = Lens::direction($cb, $g->x[$j], $g->y[$j]);
        }
        $in = PairCheck::agreeing($x1, $y1, $x2, $y2, self::WITHIN / min($ca[0], $cb[0]), 1 + 1009 * $a + $b);
        foreach ($in as $k) {
            [$i, $j] = $pairs[$k];
            [$p, $q] = [self::key($a, $i), self::key($b, $j)];
            $this->unite($p, $q);
            $this->joined[$p][] = $q;
            $this->joined[$q][] = $p;
        }
        $this->agreed["$a $b"] = \count($in);

        return \count($in);
    }

    private static function key(int $image, int $feature): int
    {
        return $image * 100_000 + $feature;
    }

    private function root(int $k): int
    {
        $this->parent[$k] ??= $k;
        while ($this->parent[$k] !== $k) {
            $this->parent[$k] = $this->parent[$this->parent[$k]];
            $k = $this->parent[$k];
        }

        return $k;
    }

    private function unite(int $a, int $b): void
    {
        [$p, $q] = [$this->root($a), $this->root($b)];
        if ($p !== $q) {
            $this->parent[max($p, $q)] = min($p, $q);
        }
    }

    /**
     * The parts of a point that hold together without bridges (Tarjan 1974); a pair is held together by its one match.
     *
     * @param list<int> $members
     *
     * @return list<list<int>>
     */
    private function firm(array $members): array
    {
        if (\count($members) < 3) {
            return [$members];
        }
        $order = $low = $bridges = [];
        $stack = [[$members[0], -1, 0]];
        $order[$members[0]] = $low[$members[0]] = 0;
        while ([] !== $stack) {
            [$k, $from, $next] = $stack[\count($stack) - 1];
            if (isset($this->joined[$k][$next])) {
                ++$stack[\count($stack) - 1][2];
                $to = $this->joined[$k][$next];
                if (!isset($order[$to])) {
                    $order[$to] = $low[$to] = \count($order);
                    $stack[] = [$to, $k, 0];
                } elseif ($to !== $from) {
                    $low[$k] = min($low[$k], $order[$to]);
                }
                continue;
            }
            array_pop($stack);
            if ($from >= 0) {
                $low[$from] = min($low[$from], $low[$k]);
                if ($low[$k] > $order[$from]) {
                    $bridges["$from $k"] = $bridges["$k $from"] = true;
                }
            }
        }
        $parts = $seen = [];
        foreach ($members as $start) {
            $part = [];
            $open = isset($seen[$start]) ? [] : [$start];
            $seen[$start] = true;
            while ([] !== $open) {
                $part[] = $k = array_pop($open);
                foreach ($this->joined[$k] ?? [] as $to) {
                    if (!isset($seen[$to]) && !isset($bridges["$k $to"])) {
                        $seen[$to] = true;
                        $open[] = $to;
                    }
                }
            }
            if (\count($part) > 1) {
                $parts[] = $part;
            }
        }

        return $parts;
    }

    /**
     * @return list<array<int, array{float, float}>> pixels by image, those that most images show first; what an image would show
     *     twice is mistaken somewhere and left out
     */
    public function tracks(): array
    {
        $of = [];
        foreach (array_keys($this->parent) as $k) {
            $of[$this->root($k)][] = $k;
        }
        $tracks = [];
        foreach (array_merge(...array_map($this->firm(...), array_values($of))) as $members) {
            $track = [];
            foreach ($members as $k) {
                [$image, $i] = [intdiv($k, 100_000), $k % 100_000];
                if (isset($track[$image])) {
                    continue 2;
                }
                $track[$image] = [$this->features[$image]->x[$i], $this->features[$image]->y[$i]];
            }
            if (\count($track) > 1) {
                ksort($track);
                $tracks[] = $track;
            }
        }
        usort($tracks, static fn (array $a, array $b): int => \count($b) <=> \count($a));

        return $tracks;
    }
}
