<?php

declare(strict_types=1);

namespace Mensura\Tests\Graph;

use Mensura\Graph\CycleBasis;
use PHPUnit\Framework\TestCase;

/** Facts of graphs: a basis has edges - nodes + parts chains, each closed, none made of the others. */
final class CycleBasisTest extends TestCase
{
    public function testRandomGraphs(): void
    {
        mt_srand(17);
        for ($try = 0; $try < 60; ++$try) {
            $nodes = mt_rand(2, 14);
            $edges = [];
            for ($k = mt_rand(1, 3 * $nodes); $k > 0; --$k) {
                $edges[] = ['x'.mt_rand(1, $nodes), 'x'.mt_rand(1, $nodes), 1.0 + mt_rand() / mt_getrandmax()];
            }
            $edges = array_values(array_filter($edges, static fn (array $e): bool => $e[0] !== $e[1]));
            $this->check($edges);
        }
    }

    public function testTheShortestOfThem(): void
    {
        // A square with a diagonal: two triangles, not the square.
        $loops = CycleBasis::of([['A', 'B', 1.0], ['B', 'C', 1.0], ['C', 'D', 1.0], ['D', 'A', 1.0], ['A', 'C', 1.2]]);
        self::assertSame([3, 3], array_map(\count(...), $loops));
        self::assertSame([[0, 1], [1, 1], [4, -1]], $loops[0]);
    }

    public function testWhatHangsOnOneEndAndRingsOfTheirOwn(): void
    {
        $loops = CycleBasis::of([
            ['A', 'B', 1.0], ['B', 'C', 1.0], ['C', 'A', 1.0], ['C', 'D', 5.0], ['X', 'Y', 1.0], ['Y', 'X', 2.0],
            ['Q', 'Q', 1.0],
        ]);
        self::assertCount(2, $loops);
        self::assertSame([[0, 1], [1, 1], [2, 1]], $loops[0]);
        self::assertSame([[4, 1], [5, 1]], $loops[1]);
    }

    /** A grid of 21 by 3 junctions has 40 loops; every line between junctions is a chain of differences. */
    public function testALongNetOfManyDifferences(): void
    {
        $edges = [];
        $chain = static function (string $from, string $to) use (&$edges): void {
            $last = $from;
            for ($k = 0; $k < 48; ++$k) {
                $next = 47 === $k ? $to : "$from-$to-$k";
                $edges[] = [$last, $next, 60.0];
                $last = $next;
            }
        };
        for ($i = 0; $i < 21; ++$i) {
            for ($j = 0; $j < 3; ++$j) {
                if ($i < 20) {
                    $chain("$i.$j", ($i + 1).".$j");
                }
                if ($j < 2) {
                    $chain("$i.$j", "$i.".($j + 1));
                }
            }
        }
        $this->check($edges);
        self::assertCount(40, CycleBasis::of($edges));
    }

    /** @param list<array{string, string, float}> $edges */
    private function check(array $edges): void
    {
        $parent = [];
        $find = static function (string $x) use (&$parent): string {
            while (($parent[$x] ??= $x) !== $x) {
                $x = $parent[$x];
            }

            return $x;
        };
        foreach ($edges as [$a, $b]) {
            $parent[$find($a)] = $find($b);
        }
        $parts = \count(array_unique(array_map($find, array_keys($parent))));
        $loops = CycleBasis::of($edges);
        self::assertCount(\count($edges) - \count($parent) + $parts, $loops);
        $basis = [];
        foreach ($loops as $loop) {
            self::assertSame(1, $loop[0][1]);
            $at = $start = $edges[$loop[0][0]][0];
            $vector = [];
            foreach ($loop as [$i, $sense]) {
                [$from, $to] = 1 === $sense ? $edges[$i] : [$edges[$i][1], $edges[$i][0]];
                self::assertSame($at, $from);
                $at = $to;
                $vector[$i] = true;
            }
            self::assertSame($start, $at);
            self::assertCount(\count($loop), $vector, 'No edge twice.');
            while ([] !== $vector && isset($basis[max(array_keys($vector))])) {
                foreach ($basis[max(array_keys($vector))] as $i => $true) {
                    if (isset($vector[$i])) {
                        unset($vector[$i]);
                    } else {
                        $vector[$i] = true;
                    }
                }
            }
            self::assertNotSame([], $vector, 'Independent of the others.');
            $basis[max(array_keys($vector))] = $vector;
        }
    }
}
