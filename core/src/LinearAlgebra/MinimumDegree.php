<?php

declare(strict_types=1);

namespace Mensura\LinearAlgebra;

/**
 * Fill-reducing elimination order of a symmetric matrix, from its graph alone.
 *
 * Approximate minimum degree on a quotient graph with element absorption, after
 * Amestoy, Davis and Duff (1996), "An approximate minimum degree ordering algorithm",
 * SIAM J. Matrix Anal. Appl. 17(4). Nodes may carry a weight, the number of unknowns
 * they stand for (a station has up to three, an orientation one).
 */
final class MinimumDegree
{
    /**
     * @param list<list<int>> $neighbours per node, the nodes it shares an equation with (both directions, no self loops, no repeats)
     * @param list<int>       $weights    unknowns per node, 1 or more
     *
     * @return list<int> the nodes in elimination order
     */
    public static function order(array $neighbours, array $weights): array
    {
        $n = \count($neighbours);
        $variables = $neighbours;
        /** @var list<list<int>> $elements per node, the elements it belongs to */
        $elements = array_fill(0, $n, []);
        /** @var array<int, list<int>> $members per element, its still uneliminated nodes */
        $members = [];
        $elementSize = array_fill(0, $n, 0);
        $degree = [];
        $queue = new \SplMinHeap();
        for ($i = 0; $i < $n; ++$i) {
            $d = 0;
            foreach ($variables[$i] as $j) {
                $d += $weights[$j];
            }
            $degree[$i] = $d;
            $queue->insert($d * $n + $i);
        }
        $done = array_fill(0, $n, false);
        $mark = array_fill(0, $n, -1);
        $outside = array_fill(0, $n, 0);
        $outsideStamp = array_fill(0, $n, -1);
        $order = [];
        while (\count($order) < $n) {
            $least = $queue->extract();
            $pivot = $least % $n;
            $d = intdiv($least, $n);
            if ($done[$pivot] || $d !== $degree[$pivot]) {
                continue;
            }
            $done[$pivot] = true;
            $order[] = $pivot;

            $front = [];
            $size = 0;
            $mark[$pivot] = $pivot;
            foreach ($variables[$pivot] as $j) {
                if (!$done[$j] && $mark[$j] !== $pivot) {
                    $mark[$j] = $pivot;
                    $front[] = $j;
                    $size += $weights[$j];
                }
            }
            foreach ($elements[$pivot] as $e) {
                foreach ($members[$e] ?? [] as $j) {
                    if (!$done[$j] && $mark[$j] !== $pivot) {
                        $mark[$j] = $pivot;
                        $front[] = $j;
                        $size += $weights[$j];
                    }
                }
                unset($members[$e]);
            }
            $variables[$pivot] = [];
            $elements[$pivot] = [];
            $members[$pivot] = $front;
            $elementSize[$pivot] = $size;

            // How much of every neighbouring element lies outside the new front.
            foreach ($front as $i) {
                foreach ($elements[$i] as $e) {
                    if (!isset($members[$e])) {
                        continue;
                    }
                    if ($outsideStamp[$e] !== $pivot) {
                        $outsideStamp[$e] = $pivot;
                        $outside[$e] = $elementSize[$e];
                    }
                    $outside[$e] -= $weights[$i];
                }
            }
            foreach ($front as $i) {
                $kept = [];
                $d = $size - $weights[$i];
                foreach ($elements[$i] as $e) {
                    if (!isset($members[$e]) || $e === $pivot) {
                        continue;
                    }
                    if ($outside[$e] <= 0) {
                        continue; // wholly inside the front: absorbed
                    }
                    $kept[] = $e;
                    $d += $outside[$e];
                }
                $kept[] = $pivot;
                $elements[$i] = $kept;
                $rest = [];
                foreach ($variables[$i] as $j) {
                    if (!$done[$j] && $mark[$j] !== $pivot) {
                        $rest[] = $j;
                        $d += $weights[$j];
                    }
                }
                $variables[$i] = $rest;
                if ($d !== $degree[$i]) {
                    $degree[$i] = $d;
                    $queue->insert($d * $n + $i);
                }
            }
        }

        return $order;
    }
}
