<?php

declare(strict_types=1);

namespace Mensura\Tests\Statistics;

use Mensura\Statistics\Distribution;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

final class DistributionTest extends TestCase
{
    public function testQuantilesAgreeWithR(): void
    {
        foreach (Fixture::csv('statistics/quantiles.csv') as $row) {
            $expected = (float) $row['value'];
            $actual = 'chisq' === $row['what']
                ? Distribution::chiSquareQuantile((float) $row['p'], (float) $row['df'])
                : Distribution::normalQuantile((float) $row['p']);
            self::assertEqualsWithDelta($expected, $actual, 1e-10 * max(1.0, abs($expected)), implode(' ', $row));
        }
    }

    /** NIST/SEMATECH e-Handbook, table of the chi-square distribution (as printed there, from memory; R agrees above). */
    public function testHandbookTable(): void
    {
        self::assertSame('20.483', \sprintf('%.3f', Distribution::chiSquareQuantile(0.975, 10)));
        self::assertSame('3.247', \sprintf('%.3f', Distribution::chiSquareQuantile(0.025, 10)));
        self::assertSame('18.307', \sprintf('%.3f', Distribution::chiSquareQuantile(0.95, 10)));
    }

    /** Baarda 1968: the bias found with power 0.80 at a two-sided level of 0.001 is 4.13 standard deviations. */
    public function testBaardasDelta(): void
    {
        self::assertEqualsWithDelta(4.13, Distribution::normalQuantile(0.9995) + Distribution::normalQuantile(0.80), 0.005);
    }

    public function testImpossibleProbabilities(): void
    {
        $this->expectException(\DomainException::class);
        Distribution::chiSquareQuantile(1.0, 5);
    }
}
