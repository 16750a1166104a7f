<?php

declare(strict_types=1);

namespace Mensura\Tests\Traverse;

use Mensura\Exchange\TraverseJson\TraverseJsonReader;
use Mensura\Fault\UnusableInput;
use Mensura\Tests\Fixture;
use Mensura\Traverse\CompassRule;
use Mensura\Traverse\RigorousTraverse;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Against scipy (fixtures/traverse/make.py), and what every traverse must do. */
final class TraverseTest extends TestCase
{
    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>}> */
    public static function traverses(): iterable
    {
        foreach (Fixture::json('traverse/traverses.json') as $name => $case) {
            yield $name => [$case['input'], $case['expected']];
        }
    }

    /**
     * @param array<string, mixed> $input
     * @param array<string, mixed> $expected
     */
    #[DataProvider('traverses')]
    public function testClosuresCompassRuleAndLeastSquares(array $input, array $expected): void
    {
        [$traverse, $angleSd, $distanceSd] = (new TraverseJsonReader())->read((string) json_encode($input));
        $compass = new CompassRule($traverse);
        if (null === $expected['angular']) {
            self::assertNull($compass->angularMisclosure);
            self::assertNull($compass->azimuths[\count($compass->azimuths) - 1]);
        } else {
            self::assertEqualsWithDelta($expected['angular'], $compass->angularMisclosure, 1e-10);
        }
        self::assertNotNull($compass->misclosure);
        self::assertEqualsWithDelta($expected['de'], $compass->misclosure[0], 1e-8);
        self::assertEqualsWithDelta($expected['dn'], $compass->misclosure[1], 1e-8);
        self::assertEqualsWithDelta($expected['length'], $compass->length, 1e-9);
        self::assertEqualsWithDelta($expected['length'] / hypot($expected['de'], $expected['dn']), $compass->ratio, 1e-3);
        self::assertNotNull($angleSd);
        self::assertNotNull($distanceSd);
        $rigorous = RigorousTraverse::adjust($traverse, $compass, $angleSd, $distanceSd);
        self::assertNotNull($rigorous);
        $rows = array_column($rigorous->stations, null, 'id');
        foreach ($expected['compass'] as $i => [$e, $n]) {
            self::assertEqualsWithDelta($e, $compass->places[$i][0], 1e-8);
            self::assertEqualsWithDelta($n, $compass->places[$i][1], 1e-8);
            $row = $rows["row $i"] ?? $rows['row 0'];
            self::assertEqualsWithDelta($expected['rigorous'][$i][0], $row['e'], 2e-7, "row $i");
            self::assertEqualsWithDelta($expected['rigorous'][$i][1], $row['n'], 2e-7, "row $i");
        }
    }

    public function testAnOpenTraverseHasNothingToAdjust(): void
    {
        $input = ['stations' => [
            ['id' => 'T1', 'angle' => 90.0, 'distance' => 100.0], ['id' => 'T2', 'angle' => 90.0, 'distance' => 50.0],
            ['id' => 'T3'],
        ]];
        [$traverse] = (new TraverseJsonReader())->read((string) json_encode($input + self::head()));
        $compass = new CompassRule($traverse);
        self::assertNull($compass->misclosure);
        self::assertNull($compass->ratio);
        self::assertNull(RigorousTraverse::adjust($traverse, $compass, 0.001, [0.002, 2.0]));
        // Back to the north, 90 degrees clockwise: east; then 90 degrees clockwise from the way back: north.
        self::assertEqualsWithDelta([100.0, 0.0], $compass->places[1], 1e-9);
        self::assertEqualsWithDelta([100.0, 50.0], $compass->places[2], 1e-9);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        $t1 = ['id' => 'T1', 'angle' => 90.0, 'distance' => 100.0];
        $end = ['id' => 'T2', 'e' => 100.0, 'n' => 0.0];
        yield 'the same name twice' => [
            ['stations' => [$t1, ['id' => 'T2', 'angle' => 1.0, 'distance' => 3.0], ['id' => 'T2']]],
            'stations[2].id: station "T2" is there twice',
        ];
        yield 'a missing angle' => [
            ['stations' => [['angle' => null] + $t1, ['id' => 'T2']], 'end' => $end],
            'stations[0].angle: station "T1" has no angle',
        ];
        yield 'a missing distance' => [
            ['stations' => [['distance' => null] + $t1, ['id' => 'T2']]],
            'stations[0].distance: station "T1" has no distance',
        ];
        yield 'a distance at the end' => [['stations' => [$t1, ['id' => 'T2', 'distance' => 3.0]]], 'is the last and has a distance'];
        yield 'an angle that closes on nothing' => [['stations' => [$t1, ['id' => 'T2', 'angle' => 3.0]], 'end' => $end], 'add endAzimuth'];
        yield 'another end' => [['stations' => [$t1, ['id' => 'T9']], 'end' => $end], 'end.id: is "T2", but that row of stations is "T9"'];
        yield 'a loop with two places' => [
            ['stations' => [$t1, ['id' => 'T2', 'angle' => 1.0, 'distance' => 2.0], ['id' => 'T1']], 'end' => ['id' => 'T1'] + $end],
            'a loop ends at its start',
        ];
        yield 'no distance at all' => [['stations' => [['distance' => -1.0] + $t1, ['id' => 'T2']]], 'must be positive'];
    }

    /** @param array<string, mixed> $input */
    #[DataProvider('unusable')]
    public function testUnusableTraversesAreRefused(array $input, string $reason): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($reason);
        (new TraverseJsonReader())->read((string) json_encode($input + self::head()));
    }

    /** @return array<string, mixed> */
    private static function head(): array
    {
        return ['format' => 'mensura-traverse/1', 'start' => ['id' => 'T1', 'e' => 0.0, 'n' => 0.0], 'startAzimuth' => 0.0];
    }
}
