<?php

declare(strict_types=1);

namespace Mensura\Graph;

/**
 * The independent closed chains of a graph, each as short as can be.
 *
 * Horton (1987), A polynomial-time algorithm to find the shortest cycle basis of a graph: for every node and edge the chain
 * through both along shortest paths, the shortest independent ones kept (over GF(2)). Ends that close nothing are cut off
 * and chains without a branch are drawn together first, so that its cost follows the number of loops, not of edges.
 */
final class CycleBasis
{
    /** With more loops than this the chains are those of a tree of shortest paths: independent, not the shortest. */
    private const HORTON = 150;

    /**
     * @param list<array{string, string, float}> $edges from, to, length; an edge from a node to itself closes nothing and is left out
     *
     * @return list<list<array{int, int}>> per loop its edges in order with the sense they are passed in, 1 or -1, the first one's sense 1
     */
    public static function of(array $edges): array
    {
        $chains = self::chains($edges);
        $loops = [];
        $adjacent = [];
        foreach ($chains as $c => [$from, $to]) {
            if ($from !== $to) {
                $adjacent[$from][] = $c;
                $adjacent[$to][] = $c;
            }
        }
        $trees = [];
        foreach (array_keys($adjacent) as $node) {
            $trees[$node] = null;
        }
        $candidates = [];
        $parts = self::parts($adjacent, $chains);
        $count = \count(array_filter($chains, static fn (array $c): bool => $c[0] !== $c[1])) - \count($adjacent) + \count($parts);
        $roots = $count > self::HORTON ? $parts : array_keys($trees);
        foreach ($roots as $root) {
            $tree = self::shortest((string) $root, $adjacent, $chains);
            foreach ($chains as $c => [$from, $to, $length]) {
                if ($from === $to || !isset($tree[$from], $tree[$to]) || $tree[$from][1] === $c || $tree[$to][1] === $c) {
                    continue;
                }
                $candidates[] = [$tree[$from][0] + $length + $tree[$to][0], $c, (string) $root];
                if (\count($candidates) > 400000) {
                    break 2;
                }
            }
            $trees[$root] = $tree;
        }
        usort($candidates, static fn (array $a, array $b): int => [$a[0], $a[1], $a[2]] <=> [$b[0], $b[1], $b[2]]);
        $basis = [];
        foreach ($candidates as [, $c, $root]) {
            if (\count($basis) === $count) {
                break;
            }
            $path = self::through($c, (array) $trees[$root], $chains);
            if (null === $path) {
                continue;
            }
            $vector = [];
            foreach ($path as [$chain]) {
                $vector[$chain] = true;
            }
            if (self::isIndependent($vector, $basis)) {
                $loops[] = $path;
            }
        }
        foreach ($chains as $c => [$from, $to]) {
            if ($from === $to && \count($chains[$c][3]) > 1) {
                $loops[] = [[$c, 1]];
            }
        }

        return array_map(static fn (array $loop): array => self::unfold($loop, $chains), $loops);
    }

    /**
     * Edges drawn together over nodes where only two meet; what hangs on one end only is cut off.
     *
     * @param list<array{string, string, float}> $edges
     *
     * @return list<array{string, string, float, list<array{int, int}>}> from, to, length, edges with their sense
     */
    private static function chains(array $edges): array
    {
        $chains = $at = [];
        foreach ($edges as $i => [$from, $to, $length]) {
            if ($from !== $to) {
                $chains[$i] = ["n$from", "n$to", $length, [[$i, 1]]];
                $at["n$from"][$i] = true;
                $at["n$to"][$i] = true;
            }
        }
        $open = array_keys($at);
        while (null !== $node = array_pop($open)) {
            $here = array_keys($at[$node]);
            if (1 === \count($here)) {
                $other = $chains[$here[0]][0] === $node ? $chains[$here[0]][1] : $chains[$here[0]][0];
                unset($chains[$here[0]], $at[$node][$here[0]], $at[$other][$here[0]]);
                $open[] = $other;
            } elseif (2 === \count($here)) {
                [$a, $b] = $here;
                $first = $chains[$a][1] === $node ? $chains[$a] : self::turned($chains[$a]);
                $second = $chains[$b][0] === $node ? $chains[$b] : self::turned($chains[$b]);
                if ($first[0] === $node || $second[1] === $node) {
                    continue;
                }
                $chains[$a] = [$first[0], $second[1], $first[2] + $second[2], [...$first[3], ...$second[3]]];
                unset($chains[$b], $at[$node][$a], $at[$node][$b], $at[$second[1]][$b]);
                if ($first[0] === $second[1]) {
                    // A ring of its own: no further chain passes through it.
                    unset($at[$first[0]][$a]);
                    $open[] = $first[0];
                } else {
                    $at[$second[1]][$a] = true;
                }
            }
        }

        return array_values($chains);
    }

    /**
     * @param array{string, string, float, list<array{int, int}>} $chain
     *
     * @return array{string, string, float, list<array{int, int}>}
     */
    private static function turned(array $chain): array
    {
        return [$chain[1], $chain[0], $chain[2], array_map(static fn (array $e): array => [$e[0], -$e[1]], array_reverse($chain[3]))];
    }

    /**
     * @param array<string, list<int>>                                  $adjacent
     * @param list<array{string, string, float, list<array{int, int}>}> $chains
     *
     * @return list<string> a node of each connected part
     */
    private static function parts(array $adjacent, array $chains): array
    {
        $seen = $parts = [];
        foreach ($adjacent as $start => $unused) {
            if (isset($seen[$start])) {
                continue;
            }
            $parts[] = $start;
            $seen[$start] = true;
            $open = [$start];
            while (null !== $node = array_pop($open)) {
                foreach ($adjacent[$node] as $c) {
                    foreach ([$chains[$c][0], $chains[$c][1]] as $next) {
                        if (!isset($seen[$next])) {
                            $seen[$next] = true;
                            $open[] = $next;
                        }
                    }
                }
            }
        }

        return $parts;
    }

    /**
     * @param array<string, list<int>>                                  $adjacent
     * @param list<array{string, string, float, list<array{int, int}>}> $chains
     *
     * @return array<string, array{float, int, string}> per node: distance, chain it is reached by, node before
     */
    private static function shortest(string $root, array $adjacent, array $chains): array
    {
        $tree = [$root => [0.0, -1, '']];
        $done = [];
        $queue = new \SplPriorityQueue();
        $queue->setExtractFlags(\SplPriorityQueue::EXTR_DATA);
        $queue->insert($root, -0.0);
        while (!$queue->isEmpty()) {
            $node = $queue->extract();
            if (!\is_string($node) || isset($done[$node])) {
                continue;
            }
            $done[$node] = true;
            foreach ($adjacent[$node] as $c) {
                $next = $chains[$c][0] === $node ? $chains[$c][1] : $chains[$c][0];
                $distance = $tree[$node][0] + $chains[$c][2];
                if (!isset($done[$next]) && (!isset($tree[$next]) || $distance < $tree[$next][0])) {
                    $tree[$next] = [$distance, $c, $node];
                    $queue->insert($next, -$distance);
                }
            }
        }

        return $tree;
    }

    /**
     * @param array<string, array{float, int, string}>                  $tree
     * @param list<array{string, string, float, list<array{int, int}>}> $chains
     *
     * @return ?list<array{int, int}> the closed chain along the tree to one end, over the edge and back; null when it runs twice along one
     */
    private static function through(int $c, array $tree, array $chains): ?array
    {
        [$from, $to] = $chains[$c];
        $out = self::path($from, $tree, $chains);
        $back = self::path($to, $tree, $chains);
        while ([] !== $out && [] !== $back && $out[\count($out) - 1][0] === $back[\count($back) - 1][0]) {
            array_pop($out);
            array_pop($back);
        }
        $used = array_column([...$out, ...$back], 0);
        if (\count(array_unique($used)) < \count($used)) {
            return null;
        }
        // Over the edge, home from its end, out again to its start.
        $outward = array_map(static fn (array $e): array => [$e[0], -$e[1]], array_reverse($out));

        return [[$c, 1], ...$back, ...$outward];
    }

    /**
     * @param array<string, array{float, int, string}>                  $tree
     * @param list<array{string, string, float, list<array{int, int}>}> $chains
     *
     * @return list<array{int, int}> from the node to the root
     */
    private static function path(string $node, array $tree, array $chains): array
    {
        $path = [];
        while ($tree[$node][1] >= 0) {
            $c = $tree[$node][1];
            $path[] = [$c, $chains[$c][0] === $node ? 1 : -1];
            $node = $tree[$node][2];
        }

        return $path;
    }

    /**
     * @param array<int, true>             $vector
     * @param array<int, array<int, true>> $basis  by leading member; the vector joins it when it is independent
     */
    private static function isIndependent(array $vector, array &$basis): bool
    {
        while ([] !== $vector) {
            $lead = max(array_keys($vector));
            if (!isset($basis[$lead])) {
                $basis[$lead] = $vector;

                return true;
            }
            foreach ($basis[$lead] as $member => $true) {
                if (isset($vector[$member])) {
                    unset($vector[$member]);
                } else {
                    $vector[$member] = true;
                }
            }
        }

        return false;
    }

    /**
     * @param list<array{int, int}>                                     $loop
     * @param list<array{string, string, float, list<array{int, int}>}> $chains
     *
     * @return list<array{int, int}>
     */
    private static function unfold(array $loop, array $chains): array
    {
        $edges = [];
        foreach ($loop as [$c, $sense]) {
            array_push($edges, ...(1 === $sense ? $chains[$c][3] : self::turned($chains[$c])[3]));
        }
        // The loop begins with its first edge of the list, in that edge's own sense.
        $first = 0;
        foreach ($edges as $k => [$i]) {
            if ($i < $edges[$first][0]) {
                $first = $k;
            }
        }
        $edges = [...\array_slice($edges, $first), ...\array_slice($edges, 0, $first)];
        if (-1 === $edges[0][1]) {
            $start = array_shift($edges);
            $edges = [[$start[0], 1], ...array_map(static fn (array $e): array => [$e[0], -$e[1]], array_reverse($edges))];
        }

        return array_values($edges);
    }
}
