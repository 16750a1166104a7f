<?php

declare(strict_types=1);

namespace Mensura\Tests\LinearAlgebra;

use Mensura\LinearAlgebra\BlockCholesky;
use Mensura\LinearAlgebra\Dense;
use Mensura\LinearAlgebra\MinimumDegree;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Against dense Gauss-Jordan, and the definition of an inverse. */
final class BlockCholeskyTest extends TestCase
{
    /** @return iterable<string, array{list<int>}> widths that may occur */
    public static function widths(): iterable
    {
        yield 'stations and orientations' => [[1, 3]];
        yield 'plan' => [[2, 1]];
        yield 'heights' => [[1]];
        yield 'everything' => [[1, 2, 3]];
        yield 'stations' => [[3]];
    }

    /** @param list<int> $choice */
    #[DataProvider('widths')]
    public function testSolutionAndSelectedInverseAgreeWithDense(array $choice): void
    {
        mt_srand(5);
        [$cholesky, $dense, $values, $places] = $this->randomMatrix(18, $choice);
        self::assertSame([], $cholesky->factor($values));
        $inverse = Dense::inverse($dense);
        self::assertNotNull($inverse);
        $rhs = array_map(static fn (): float => mt_rand() / mt_getrandmax(), $dense);
        $x = $cholesky->solve($rhs);
        foreach ($dense as $i => $row) {
            self::assertEqualsWithDelta($rhs[$i], array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $row, $x)), 1e-12);
        }
        $selected = $cholesky->selectedInverse();
        foreach ($places as $place => [$i, $j]) {
            self::assertEqualsWithDelta($inverse[$i][$j], $selected[$place], 1e-12);
        }
        // b'A^-1 b from the forward solution alone.
        $quadratic = 0.0;
        foreach ($cholesky->forward($rhs) as $k => $y) {
            $quadratic += $y * $y * $cholesky->reciprocals()[$k];
        }
        self::assertEqualsWithDelta(array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $rhs, $x)), $quadratic, 1e-12);
    }

    /** @param list<int> $choice */
    #[DataProvider('widths')]
    public function testAHeldUnknownIsLeftOut(array $choice): void
    {
        mt_srand(9);
        [$cholesky, $dense, $values, $places] = $this->randomMatrix(12, $choice);
        $held = intdiv(\count($dense), 2);
        $cholesky->factor($values, [$held => true]);
        $rest = array_values(array_diff(array_keys($dense), [$held]));
        $inverse = Dense::inverse(array_map(
            static fn (int $i): array => array_map(static fn (int $j): float => $dense[$i][$j], $rest),
            $rest,
        ));
        self::assertNotNull($inverse);
        $selected = $cholesky->selectedInverse();
        $number = array_flip($rest);
        foreach ($places as $place => [$i, $j]) {
            $expected = $i === $held || $j === $held ? 0.0 : $inverse[$number[$i]][$number[$j]];
            self::assertEqualsWithDelta($expected, $selected[$place], 1e-12);
        }
        self::assertSame(0.0, $cholesky->solve(array_fill(0, \count($dense), 1.0))[$held]);
    }

    public function testNullPivotIsReportedWithItsDirection(): void
    {
        // x0 - x1 and x1 - x2 observed: only differences are known.
        $cholesky = new BlockCholesky([1, 1, 1], [0, 0, 1, 2], [0, 1]);
        $values = array_fill(0, $cholesky->valueCount, 0.0);
        foreach ([1.0, 2.0, 1.0] as $i => $value) {
            $values[$cholesky->diagonalAt[$i]] = $value;
        }
        $values[$cholesky->upperAt[0]] = $values[$cholesky->upperAt[1]] = -1.0;
        self::assertSame([2], $cholesky->factor($values));
        self::assertSame([1.0, 1.0, 1.0], $cholesky->nullDirection(2));
        self::assertSame(0.0, $cholesky->solve([1.0, 0.0, -1.0])[2]);
    }

    public function testANullDirectionWithinAndAcrossBlocks(): void
    {
        // Differences of four unknowns in blocks of one and three.
        $cholesky = new BlockCholesky([1, 3], [0, 0, 1], [0]);
        $values = array_fill(0, $cholesky->valueCount, 0.0);
        $values[$cholesky->diagonalAt[0]] = 1.0;
        $values[$cholesky->upperAt[0]] = -1.0;
        $values[$cholesky->diagonalAt[1]] = 2.0;
        $values[$cholesky->diagonalAt[1] + 1] = -1.0;
        $values[$cholesky->diagonalAt[1] + 4] = 2.0;
        $values[$cholesky->diagonalAt[1] + 5] = -1.0;
        $values[$cholesky->diagonalAt[1] + 8] = 1.0;
        self::assertSame([3], $cholesky->factor($values));
        self::assertSame([1.0, 1.0, 1.0, 1.0], $cholesky->nullDirection(3));
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
        self::assertLessThan(6 * $count, (new BlockCholesky(array_fill(0, $count, 1), $start, $rows))->valueCount);
    }

    /**
     * @param list<int> $choice
     *
     * @return array{BlockCholesky, list<list<float>>, list<float>, array<int, array{int, int}>} factorization, the matrix dense and in
     *     the layout, and the unknowns of each place
     */
    private function randomMatrix(int $blocks, array $choice): array
    {
        $widths = $first = [];
        $n = 0;
        for ($k = 0; $k < $blocks; ++$k) {
            $widths[] = $choice[mt_rand(0, \count($choice) - 1)];
            $first[] = $n;
            $n += $widths[$k];
        }
        $start = [0];
        $rows = [];
        for ($k = 0; $k < $blocks; ++$k) {
            $met = $k > 0 ? array_unique([mt_rand(0, $k - 1), mt_rand(0, $k - 1)]) : [];
            array_push($rows, ...$met);
            $start[] = \count($rows);
        }
        $cholesky = new BlockCholesky($widths, $start, $rows);
        $dense = array_fill(0, $n, array_fill(0, $n, 0.0));
        $values = array_fill(0, $cholesky->valueCount, 0.0);
        $places = [];
        $put = static function (int $i, int $j, int $place, float $value) use (&$dense, &$values, &$places): void {
            $dense[$i][$j] = $dense[$j][$i] = $value;
            $values[$place] = $value;
            $places[$place] = [$i, $j];
        };
        for ($k = 0; $k < $blocks; ++$k) {
            for ($a = 0; $a < $widths[$k]; ++$a) {
                for ($b = $a; $b < $widths[$k]; ++$b) {
                    $put(
                        $first[$k] + $a, $first[$k] + $b, $cholesky->diagonalAt[$k] + $a * $widths[$k] + $b,
                        ($a === $b ? 9.0 : 0.0) + mt_rand() / mt_getrandmax(),
                    );
                }
            }
            for ($p = $start[$k]; $p < $start[$k + 1]; ++$p) {
                $i = $rows[$p];
                for ($a = 0; $a < $widths[$k]; ++$a) {
                    for ($b = 0; $b < $widths[$i]; ++$b) {
                        $put(
                            $first[$k] + $a, $first[$i] + $b, $cholesky->upperAt[$p] + $a * $widths[$i] + $b,
                            mt_rand() / mt_getrandmax() - 0.5,
                        );
                    }
                }
            }
        }

        return [$cholesky, $dense, $values, $places];
    }
}
