<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\Adjustment;
use Mensura\Network\Suspects\DigitSlips;
use Mensura\Network\Suspects\Suspect;
use Mensura\Network\Suspects\SuspectSearch;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Causes planted in simulated networks are found; where none is planted nothing is made of chance. */
final class SuspectsTest extends TestCase
{
    /** @return iterable<string, array{string, int}> */
    public static function causes(): iterable
    {
        foreach (PlantedCause::CAUSES as $k => $cause) {
            yield $cause => [$cause, 31 + $k];
        }
    }

    #[DataProvider('causes')]
    public function testThePlantedCauseComesFirst(string $cause, int $seed): void
    {
        $planted = null;
        while (null === $planted) {
            $network = new SimulatedNetwork($seed);
            $planted = PlantedCause::in($network, $cause, $seed);
            $seed += 100;
        }
        $suspects = $this->suspects($network);
        self::assertTrue(
            $planted->isNamedBy($suspects[0]),
            \sprintf('%s, first is %s', json_encode($planted->names), json_encode($suspects[0]->toArray())),
        );
        if (null !== $planted->estimate) {
            self::assertEqualsWithDelta(abs($planted->estimate), abs((float) $suspects[0]->estimate), 4.0 * ($suspects[0]->sd ?? 0.003));
        }
        self::assertLessThan(1.4, $suspects[0]->varianceFactorAfter, 'With the cause in the model the network fits.');
        if ('feet' === $cause) {
            self::assertSame('feet for metres', $suspects[0]->suggests);
        }
    }

    public function testCleanNetworks(): void
    {
        for ($seed = 7001; $seed <= 7012; ++$seed) {
            $suspects = $this->suspects(new SimulatedNetwork($seed));
            self::assertLessThan(4.5, abs($suspects[0]->statistic), "network $seed");
        }
    }

    public function testStatisticsOfSingleReadingsAreTheStandardizedResiduals(): void
    {
        $network = new SimulatedNetwork(3);
        $adjustment = new Adjustment($network->definition());
        $result = $adjustment->run();
        $rows = [];
        foreach ($result->observations as $row) {
            $rows[$row['index']] = $row;
        }
        $checked = 0;
        foreach ((new SuspectSearch($adjustment->solved($result)))->best(10000) as $suspect) {
            if (\in_array($suspect->cause, ['direction', 'zenith', 'distance', 'height-difference'], true)) {
                $row = $rows[$suspect->names['index']];
                self::assertEqualsWithDelta($row['standardized'], $suspect->statistic, 1e-6);
                self::assertEqualsWithDelta($row['residual'], $suspect->estimate * $row['redundancyNumber'], 1e-8);
                ++$checked;
            }
        }
        self::assertGreaterThan(100, $checked);
    }

    public function testDigits(): void
    {
        self::assertSame('123.465', DigitSlips::nearest(123.456, 0.009)[1] ?? null);
        self::assertSame('128.456', DigitSlips::nearest(123.456, 5.001)[1] ?? null);
        self::assertEqualsWithDelta(-90.0, DigitSlips::nearest(191.0, -88.0)[0] ?? 0.0, 20.0);
    }

    /** @return list<Suspect> */
    private function suspects(SimulatedNetwork $network): array
    {
        $adjustment = new Adjustment($network->definition());

        return (new SuspectSearch($adjustment->solved($adjustment->run())))->best();
    }
}
