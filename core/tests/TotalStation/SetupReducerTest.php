<?php

declare(strict_types=1);

namespace Mensura\Tests\TotalStation;

use Mensura\Exchange\BookJson\BookJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Tests\Fixture;
use Mensura\TotalStation\ReducedSetup;
use Mensura\TotalStation\SetupReducer;
use Mensura\TotalStation\Weather;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Rounds against numpy (fixtures/totalstation/make.py), faces against what an instrument with known errors would read. */
final class SetupReducerTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function rounds(): iterable
    {
        foreach (Fixture::json('totalstation/rounds.json')['cases'] as $case) {
            yield $case['setup']['id'] => [$case['setup'], $case['expected']];
        }
    }

    /**
     * @param array<string, mixed> $setup
     * @param array<string, mixed> $expected
     */
    #[DataProvider('rounds')]
    public function testRoundsAgreeWithDenseLeastSquares(array $setup, array $expected): void
    {
        $reduced = $this->reduce($setup);
        self::assertEqualsWithDelta($expected['collimation'], $reduced->collimation, 1e-10);
        if (null === $expected['sdDirection']) {
            self::assertNull($reduced->sdDirection);
        } else {
            self::assertEqualsWithDelta($expected['sdDirection'], $reduced->sdDirection, 1e-10);
        }
        self::assertEqualsWithDelta($expected['sdZenith'], $reduced->sdZenith, 1e-10);
        self::assertCount(\count($expected['targets']), $reduced->targets);
        foreach ($reduced->targets as $target) {
            $mine = $target->toArray();
            foreach ($expected['targets'][$target->target] as $key => $value) {
                self::assertEqualsWithDelta(
                    $value, $mine[$key], 'direction' === $key || 'zenith' === $key ? 1e-10 : 1e-8,
                    "$target->target $key",
                );
            }
        }
        self::assertSame(0.0, $reduced->targets[0]->direction);
    }

    public function testFacesGiveTheErrorsOfTheInstrumentBack(): void
    {
        // A collimation of 0.003 degrees on the horizon and an index of 0.002: what faces 1 and 2 read of known directions.
        $pointings = [];
        foreach ([['B', 359.999, 62.0], ['C', 0.001, 90.0], ['D', 180.0, 118.0]] as [$target, $direction, $zenith]) {
            $c = 0.003 / sin(deg2rad($zenith));
            $pointings[] = self::pointing(1, $target, fmod($direction + $c + 360.0, 360.0), $zenith + 0.002);
            $pointings[] = self::pointing(2, $target, fmod($direction - $c + 540.0, 360.0), 360.0 - $zenith + 0.002);
        }
        // A single face is corrected by them: in face 1 here, in face 2 there.
        $pointings[] = self::pointing(1, 'E', 40.0 + 0.003 / sin(deg2rad(70.0)), 70.002);
        $pointings[] = self::pointing(2, 'F', 230.0 - 0.003 / sin(deg2rad(70.0)), 290.002);
        $reduced = $this->reduce(['id' => '1', 'station' => 'A', 'hi' => 1.5, 'pointings' => $pointings]);
        self::assertEqualsWithDelta(0.003, $reduced->collimation, 1e-12);
        self::assertEqualsWithDelta(0.002, $reduced->index, 1e-12);
        self::assertSame([], $reduced->warnings);
        $directions = [0.0, 0.002, 180.001, 40.001, 50.001];
        $zeniths = [62.0, 90.0, 118.0, 70.0, 70.0];
        foreach ($reduced->targets as $k => $target) {
            self::assertEqualsWithDelta($directions[$k], $target->direction, 1e-9, $target->target);
            self::assertEqualsWithDelta($zeniths[$k], $target->zenith, 1e-9, $target->target);
            self::assertSame($k < 3 ? 'both' : 'one', $target->faces);
        }
    }

    public function testASingleFaceWithoutAnyPairIsNamed(): void
    {
        $reduced = $this->reduce([
            'id' => 'K7', 'station' => 'A', 'hi' => 0,
            'pointings' => [self::pointing(1, 'B', 10.0, 80.0), self::pointing(2, 'C', 200.0, 275.0)],
        ]);
        self::assertNull($reduced->collimation);
        self::assertNull($reduced->index);
        self::assertCount(2, $reduced->warnings);
        self::assertStringContainsString('setup K7: target C was seen in face 2 only', $reduced->warnings[1]);
        self::assertEqualsWithDelta(10.0, $reduced->targets[1]->direction, 1e-12);
        self::assertEqualsWithDelta(85.0, $reduced->targets[1]->zenith, 1e-12);
        self::assertNull($reduced->targets[1]->slope);
    }

    public function testTwoHeightsOfATargetAreTwoTargets(): void
    {
        $reduced = $this->reduce(['id' => '1', 'station' => 'A', 'hi' => 1.5, 'pointings' => [
            self::pointing(1, 'B', 10.0, 80.0, 1.5), self::pointing(1, 'B', 10.0, 80.1, 1.50005), self::pointing(1, 'B', 10.0, 80.0, 1.7),
        ]]);
        self::assertSame([2, 1], array_map(static fn ($t): int => $t->pointings, $reduced->targets));
        self::assertSame(1.7, $reduced->targets[1]->targetHeight);
    }

    /**
     * The published formula at 0 degrees, 1013.25 hPa and dry air is its own standard: Ng of 0.6328 micrometres, 300.23
     * (handbooks of electronic distance measurement give 300.2); vapour takes about 0.04 ppm per hPa (common practice).
     */
    public function testRefractivityOfStandardAir(): void
    {
        self::assertEqualsWithDelta(300.2, (new Weather(0.0, 1013.25, 0.0))->refractivity(0.6328), 0.1);
        $dry = (new Weather(20.0, 1013.25, 0.0))->refractivity(0.85);
        $wet = (new Weather(20.0, 1013.25, 100.0))->refractivity(0.85);
        self::assertEqualsWithDelta(0.0385 * 23.38, $dry - $wet, 0.01);
        // A degree is about 1 ppm, 3.6 hPa are too (common practice).
        self::assertEqualsWithDelta(1.0, $dry - (new Weather(21.0, 1013.25, 0.0))->refractivity(0.85), 0.07);
        self::assertEqualsWithDelta(1.0, (new Weather(20.0, 1013.25 + 3.66, 0.0))->refractivity(0.85) - $dry, 0.03);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        $good = ['id' => '1', 'station' => 'A', 'hi' => 1.5, 'pointings' => [self::pointing(1, 'B', 10.0, 80.0)]];
        $with = static fn (array $change): array => ['pointings' => [$change + $good['pointings'][0]]] + $good;
        yield 'no instrument height' => [['hi' => null] + $good, 'setups[0].hi: is missing; write 0 where there is none'];
        yield 'no target height' => [$with(['ht' => null]), 'setups[0].pointings[0].ht: is missing'];
        yield 'a face of three' => [$with(['face' => 3]), 'setups[0].pointings[0].face: is 3; it must be 1 or 2'];
        yield 'a vertical angle' => [$with(['zenith' => -3.2]), 'is it a vertical angle, or in gon?'];
        yield 'the other face' => [$with(['zenith' => 271.2]), 'is not of face 1'];
        yield 'no distance' => [$with(['distance' => 0]), 'setups[0].pointings[0].distance: is 0; it must be positive'];
        yield 'no pointings' => [['pointings' => []] + $good, 'setups[0].pointings: there are none'];
        yield 'weather alone' => [
            ['weather' => ['temperature' => 10, 'pressure' => 1000, 'humidity' => 50]] + $good,
            'settings.referenceRefractivity: is missing',
        ];
        yield 'rounds apart' => [
            ['pointings' => [self::pointing(1, 'B', 10.0, 80.0), ['round' => 2] + self::pointing(1, 'C', 20.0, 80.0)]] + $good,
            'setup 1: its rounds have no target in common',
        ];
    }

    /** @param array<string, mixed> $setup */
    #[DataProvider('unusable')]
    public function testUnusableBooksAreRefusedWithTheirPlace(array $setup, string $reason): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($reason);
        $this->reduce($setup);
    }

    /** @return array<string, mixed> */
    private static function pointing(int $face, string $target, float $direction, float $zenith, float $height = 1.6): array
    {
        return ['round' => 1, 'face' => $face, 'target' => $target, 'ht' => $height, 'direction' => $direction, 'zenith' => $zenith];
    }

    /** @param array<string, mixed> $setup */
    private function reduce(array $setup): ReducedSetup
    {
        [$settings, $setups] = (new BookJsonReader())->read((string) json_encode(['format' => 'mensura-book/1', 'setups' => [$setup]]));

        return (new SetupReducer($settings))->reduce($setups[0]);
    }
}
