<?php

declare(strict_types=1);

namespace Mensura\Tests\LinearAlgebra;

use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\MinimumDegree;
use Mensura\LinearAlgebra\SparseCholesky;
use PHPUnit\Framework\TestCase;

/** Against dense Gauss-Jordan, and the definition of an inverse. */
final class SparseCholeskyTest extends TestCase
{
    public function testSolutionAndSelectedInverseAgreeWithDense(): void
    {
        mt_srand(5);
        $n = 40;
        [$dense, $start, $rows, $upper, $diagonal] = $this->randomMatrix($n);
        $cholesky = new SparseCholesky($n, $start, $rows);
        self::assertSame([], $cholesky->factor($upper, $diagonal));
        $inverse = Dense::inverse($dense);
        self::assertNotNull($inverse);

        $rhs = array_map(static fn (): float => mt_rand() / mt_getrandmax(), range(1, $n));
        $x = $cholesky->solve($rhs);
        foreach ($dense as $i => $row) {
            self::assertEqualsWithDelta($rhs[$i], array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $row, $x)), 1e-12);
        }
        $selected = $cholesky->selectedInverse();
        for ($k = 0; $k < $n; ++$k) {
            self::assertEqualsWithDelta($inverse[$k][$k], $selected->at($k, $k), 1e-12);
            for ($p = $start[$k]; $p < $start[$k + 1]; ++$p) {
                self::assertEqualsWithDelta($inverse[$rows[$p]][$k], $selected->at($k, $rows[$p]), 1e-12);
            }
        }
    }

    public function testNullPivotIsReportedWithItsDirection(): void
    {
        // x0 - x1 and x1 - x2 observed: only differences are known.
        $cholesky = new SparseCholesky(3, [0, 0, 1, 2], [0, 1]);
        $null = $cholesky->factor([-1.0, -1.0], [1.0, 2.0, 1.0]);
        self::assertSame([2], $null);
        self::assertSame([1.0, 1.0, 1.0], $cholesky->nullDirection(2));
        self::assertSame(0.0, $cholesky->solve([1.0, 0.0, -1.0])[2]);
    }

    public function testOutsideThePatternIsRefused(): void
    {
        $cholesky = new SparseCholesky(2, [0, 0, 0], []);
        $cholesky->factor([], [1.0, 4.0]);
        self::assertSame(0.25, $cholesky->selectedInverse()->at(1, 1));
        $this->expectException(\OutOfRangeException::class);
        $cholesky->selectedInverse()->at(0, 1);
    }

    public function testOrderKeepsAStripNarrow(): void
    {
        // A ladder of 2 x 300 nodes numbered to make natural order fill badly; fill must stay proportional to its length.
        $count = 600;
        $shuffled = range(0, $count - 1);
        mt_srand(2);
        shuffle($shuffled);
        $neighbours = array_fill(0, $count, []);
        $link = static function (int $a, int $b) use (&$neighbours, $shuffled): void {
            $neighbours[$shuffled[$a]][] = $shuffled[$b];
            $neighbours[$shuffled[$b]][] = $shuffled[$a];
        };
        for ($i = 0; $i < 300; ++$i) {
            $link(2 * $i, 2 * $i + 1);
            if ($i < 299) {
                $link(2 * $i, 2 * $i + 2);
                $link(2 * $i + 1, 2 * $i + 3);
            }
        }
        $order = MinimumDegree::order($neighbours, array_fill(0, $count, 1));
        self::assertSame(range(0, $count - 1), (static function (array $o): array {
            sort($o);

            return $o;
        })($order));
        $position = array_flip($order);
        $start = [0];
        $rows = [];
        foreach ($order as $k => $node) {
            foreach ($neighbours[$node] as $other) {
                if ($position[$other] < $k) {
                    $rows[] = $position[$other];
                }
            }
            $start[] = \count($rows);
        }
        self::assertLessThan(6 * $count, (new SparseCholesky($count, $start, $rows))->nonZeros());
    }

    /** @return array{list<list<float>>, list<int>, list<int>, list<float>, list<float>} */
    private function randomMatrix(int $n): array
    {
        $dense = array_fill(0, $n, array_fill(0, $n, 0.0));
        for ($i = 0; $i < $n; ++$i) {
            $dense[$i][$i] = 5.0 + mt_rand() / mt_getrandmax();
            foreach ([mt_rand(0, $n - 1), mt_rand(0, $n - 1)] as $j) {
                if ($j !== $i) {
                    $dense[$i][$j] = $dense[$j][$i] = mt_rand() / mt_getrandmax() - 0.5;
                }
            }
        }
        $start = [0];
        $rows = $upper = $diagonal = [];
        for ($k = 0; $k < $n; ++$k) {
            for ($i = 0; $i < $k; ++$i) {
                if (0.0 !== $dense[$i][$k]) {
                    $rows[] = $i;
                    $upper[] = $dense[$i][$k];
                }
            }
            $start[] = \count($rows);
            $diagonal[] = $dense[$k][$k];
        }

        return [$dense, $start, $rows, $upper, $diagonal];
    }
}
