<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

use Mensura\Gnss\Lambda;
use PHPUnit\Framework\TestCase;

/** Integer least squares against the published example, and against trying every vector. */
final class LambdaTest extends TestCase
{
    /** De Jonge and Tiberius (1996), LAMBDA: implementation aspects, the example in three dimensions (from memory). */
    public function testThePublishedExample(): void
    {
        $q = [[6.290, 5.978, 0.544], [5.978, 6.292, 2.340], [0.544, 2.340, 6.288]];
        [$best, $one, $two] = Lambda::fix([5.450, 3.100, 2.970], $q) ?? [[], 0.0, 0.0];
        self::assertSame([5.0, 3.0, 4.0], $best);
        self::assertEqualsWithDelta(0.2183, $one, 5e-5);
        self::assertEqualsWithDelta(0.3073, $two, 5e-5);
    }

    public function testTheTwoBestOfAllVectors(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(7));
        $unit = static fn (): float => $random->getInt(-1000000, 1000000) / 1e6;
        for ($case = 0; $case < 40; ++$case) {
            // A covariance as ambiguities have it: one long direction and three short ones.
            $rows = [];
            for ($i = 0; $i < 4; ++$i) {
                $rows[] = [1.5 * (1.0 + 0.3 * $unit()), 0.3 * $unit(), 0.3 * $unit(), 0.3 * $unit()];
            }
            $q = [];
            foreach ($rows as $i => $a) {
                foreach ($rows as $j => $b) {
                    $q[$i][$j] = $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2] + $a[3] * $b[3] + ($i === $j ? 0.004 : 0.0);
                }
            }
            $a = [3.0 * $unit(), 3.0 * $unit(), 3.0 * $unit(), 3.0 * $unit()];
            $norms = [];
            $inverse = self::inverse($q);
            $around = static fn (float $x): array => range((int) round($x) - 6, (int) round($x) + 6);
            foreach ($around($a[0]) as $p) {
                foreach ($around($a[1]) as $r) {
                    foreach ($around($a[2]) as $s) {
                        foreach ($around($a[3]) as $t) {
                            $d = [$a[0] - $p, $a[1] - $r, $a[2] - $s, $a[3] - $t];
                            $sum = 0.0;
                            for ($i = 0; $i < 4; ++$i) {
                                for ($j = 0; $j < 4; ++$j) {
                                    $sum += $d[$i] * $inverse[$i][$j] * $d[$j];
                                }
                            }
                            $norms["$p $r $s $t"] = $sum;
                        }
                    }
                }
            }
            asort($norms);
            [$best, $one, $two] = Lambda::fix($a, $q) ?? [[], 0.0, 0.0];
            self::assertSame((string) array_key_first($norms), implode(' ', array_map(intval(...), $best)), "case $case");
            self::assertEqualsWithDelta(array_values($norms)[0], $one, 1e-6 * (1.0 + $one));
            self::assertEqualsWithDelta(array_values($norms)[1], $two, 1e-6 * (1.0 + $two));
        }
    }

    public function testAMatrixThatIsNoCovarianceIsRefused(): void
    {
        self::assertNull(Lambda::fix([0.5, 0.5], [[1.0, 2.0], [2.0, 1.0]]));
        self::assertNull(Lambda::fix([], []));
    }

    /**
     * @param array<int, array<int, float>> $q
     *
     * @return array<int, array<int, float>>
     */
    private static function inverse(array $q): array
    {
        $n = \count($q);
        for ($i = 0; $i < $n; ++$i) {
            for ($j = 0; $j < $n; ++$j) {
                $q[$i][$n + $j] = $i === $j ? 1.0 : 0.0;
            }
        }
        for ($c = 0; $c < $n; ++$c) {
            $pivot = $q[$c][$c];
            $q[$c] = array_map(static fn (float $x): float => $x / $pivot, $q[$c]);
            for ($i = 0; $i < $n; ++$i) {
                $f = $i === $c ? 0.0 : $q[$i][$c];
                for ($j = 0; 0.0 !== $f && $j < 2 * $n; ++$j) {
                    $q[$i][$j] -= $f * $q[$c][$j];
                }
            }
        }

        return array_map(static fn (array $row): array => \array_slice($row, $n), $q);
    }
}
