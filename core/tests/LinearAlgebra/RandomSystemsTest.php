<?php

declare(strict_types=1);

namespace Mensura\Tests\LinearAlgebra;

use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\MinimumDegree;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What holds for every inverse and every elimination order. */
final class RandomSystemsTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function sizes(): iterable
    {
        foreach ([1, 2, 3, 7, 20, 60] as $n) {
            yield "size $n" => [$n];
        }
    }

    #[DataProvider('sizes')]
    public function testTheInverseOfTheInverse(int $n): void
    {
        $a = self::positive($n, 100 + $n);
        $b = Dense::inverse($a);
        self::assertNotNull($b);
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j < $n; ++$j) {
                $sum = 0.0;
                for ($k = 0; $k < $n; ++$k) {
                    $sum += $a[$i][$k] * $b[$k][$j];
                }
                self::assertEqualsWithDelta($i === $j ? 1.0 : 0.0, $sum, 1e-10);
                self::assertEqualsWithDelta($b[$i][$j], $b[$j][$i], 1e-12, 'Symmetric as what it came from.');
            }
        }
        $again = Dense::inverse($b);
        self::assertNotNull($again);
        self::assertEqualsWithDelta($a[0][$n - 1], $again[0][$n - 1], 1e-8);
    }

    #[DataProvider('sizes')]
    public function testPositiveMatricesAreCovariances(int $n): void
    {
        if ($n > 7) {
            $n = 7;
        }
        $a = self::positive($n, $n);
        self::assertTrue(Dense::isCovariance($a));
        $a[0][0] = -$a[0][0];
        self::assertFalse(Dense::isCovariance($a));
        $b = self::positive($n, $n);
        if ($n > 1) {
            $b[0][1] += 1.0;
            self::assertFalse(Dense::isCovariance($b), 'Not symmetric.');
            $c = self::positive($n, $n);
            $c[0][1] = $c[1][0] = 10.0 * sqrt($c[0][0] * $c[1][1]);
            self::assertFalse(Dense::isCovariance($c), 'A correlation of ten.');
        }
        $d = self::positive($n, $n);
        $d[0][0] = \NAN;
        self::assertFalse(Dense::isCovariance($d));
    }

    /** Every node is eliminated once, whatever the graph. */
    #[DataProvider('sizes')]
    public function testAnOrderIsAPermutation(int $n): void
    {
        foreach ([0.0, 0.1, 0.5, 1.0] as $density) {
            [$neighbours, $weights] = self::graph($n, $density, $n + (int) (10 * $density));
            $order = MinimumDegree::order($neighbours, $weights);
            sort($order);
            self::assertSame(range(0, $n - 1), $order);
        }
    }

    /** A star: the centre goes last, for it would join all the others. */
    public function testTheCentreOfAStarGoesLast(): void
    {
        $neighbours = [range(1, 30)];
        for ($i = 1; $i <= 30; ++$i) {
            $neighbours[] = [0];
        }
        $order = MinimumDegree::order($neighbours, array_fill(0, 31, 1));
        // With one leaf left both are equal, and either may be the last.
        self::assertGreaterThanOrEqual(29, array_search(0, $order, true));
    }

    /** On a tree no fill comes in: leaves first. */
    public function testATreeFillsNothing(): void
    {
        [$neighbours, $n] = self::tree(200);
        self::assertSame(0, self::fill($neighbours, MinimumDegree::order($neighbours, array_fill(0, $n, 1))));
    }

    /** On a square net it fills far less than the order of the rows: George (1973) gives n log n against n^1.5. */
    public function testASquareNetFillsLessThanRowByRow(): void
    {
        $side = 24;
        $neighbours = [];
        for ($i = 0; $i < $side; ++$i) {
            for ($j = 0; $j < $side; ++$j) {
                $near = [];
                foreach ([[-1, 0], [1, 0], [0, -1], [0, 1]] as [$di, $dj]) {
                    if ($i + $di >= 0 && $i + $di < $side && $j + $dj >= 0 && $j + $dj < $side) {
                        $near[] = ($i + $di) * $side + $j + $dj;
                    }
                }
                $neighbours[] = $near;
            }
        }
        $ours = self::fill($neighbours, MinimumDegree::order($neighbours, array_fill(0, $side * $side, 3)));
        self::assertLessThan(0.6 * self::fill($neighbours, range(0, $side * $side - 1)), $ours);
    }

    /** @return list<list<float>> */
    private static function positive(int $n, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $g = [];
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j < $n; ++$j) {
                $g[$i][$j] = $random->getInt(-1000, 1000) / 1000.0;
            }
        }
        $a = [];
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j < $n; ++$j) {
                $a[$i][$j] = $i === $j ? 0.5 : 0.0;
                for ($k = 0; $k < $n; ++$k) {
                    $a[$i][$j] += $g[$i][$k] * $g[$j][$k];
                }
            }
        }

        return $a;
    }

    /** @return array{list<list<int>>, list<int>} */
    private static function graph(int $n, float $density, int $seed): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $neighbours = array_fill(0, $n, []);
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j < $i; ++$j) {
                if ($random->getInt(0, 999) < 1000 * $density) {
                    $neighbours[$i][] = $j;
                    $neighbours[$j][] = $i;
                }
            }
        }
        $weights = array_map(static fn (): int => $random->getInt(1, 3), range(1, $n));

        return [array_values($neighbours), $weights];
    }

    /** @return array{list<list<int>>, int} */
    private static function tree(int $n): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(9));
        $neighbours = array_fill(0, $n, []);
        for ($i = 1; $i < $n; ++$i) {
            $parent = $random->getInt(0, $i - 1);
            $neighbours[$i][] = $parent;
            $neighbours[$parent][] = $i;
        }

        return [array_values($neighbours), $n];
    }

    /**
     * Edges that come in when the nodes are eliminated in this order: the definition, played out.
     *
     * @param list<list<int>> $neighbours
     * @param list<int>       $order
     */
    private static function fill(array $neighbours, array $order): int
    {
        $edges = array_map(static fn (array $list): array => array_fill_keys($list, true), $neighbours);
        $fill = 0;
        foreach ($order as $node) {
            $around = array_keys($edges[$node]);
            foreach ($around as $i => $a) {
                unset($edges[$a][$node]);
                foreach (\array_slice($around, $i + 1) as $b) {
                    if (!isset($edges[$a][$b])) {
                        $edges[$a][$b] = $edges[$b][$a] = true;
                        ++$fill;
                    }
                }
            }
            $edges[$node] = [];
        }

        return $fill;
    }
}
