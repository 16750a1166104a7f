<?php

declare(strict_types=1);

namespace Mensura\Tests\Exchange\FeatureCatalogue;

use Mensura\Exchange\FeatureCatalogue\FeatureAttribute;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Exchange\FeatureCatalogue\Linework;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

#[CoversClass(FeatureCatalogue::class)]
#[CoversClass(FeatureType::class)]
#[CoversClass(FeatureAttribute::class)]
#[CoversClass(Linework::class)]
final class FeatureCatalogueTest extends TestCase
{
    /** @return array<string, mixed> */
    private static function hydrant(): array
    {
        return [
            'code' => 'HYDRANT', 'alias' => 'Hydrant', 'kind' => 'point', 'positions' => 10, 'solution' => 'carrier', 'accuracy' => 0.02,
            'attributes' => [
                ['name' => 'state', 'kind' => 'choice', 'options' => ['good', 'worn'], 'default' => 'good', 'required' => true],
                ['name' => 'bore', 'kind' => 'number', 'least' => 50, 'most' => 200, 'decimals' => 0, 'unit' => 'mm', 'number' => 80],
                ['name' => 'remark', 'kind' => 'text', 'length' => 5], ['name' => 'day', 'kind' => 'date'],
                ['name' => 'hour', 'kind' => 'time'],
            ],
        ];
    }

    public function testTheOpenFileComesBackTheSame(): void
    {
        $catalogue = FeatureCatalogue::fromArray(['scope' => 'Water', 'types' => [self::hydrant(), ['code' => 'KERB', 'kind' => 'line']]]);
        [$name, $version, $back] = FeatureCatalogue::fromJson($catalogue->toJson('water', 3));
        self::assertSame(['water', 3], [$name, $version]);
        self::assertEquals($catalogue, $back);
        self::assertSame(['KERB', null], [$back->type('KERB')?->code, $back->type('kerb')]);
        $this->expectException(UnusableInput::class);
        FeatureCatalogue::fromJson('{"format":"other"}');
    }

    /** @return iterable<string, array{array<mixed>, string, string}> */
    public static function refused(): iterable
    {
        yield 'blanks' => [[['code' => 'MAN HOLE/2']], '/types/0/code', 'take MAN_HOLE_2'];
        yield 'twice' => [[['code' => 'A'], ['code' => 'a']], '/types/1/code', 'two types with the code a'];
        yield 'a choice of nothing' => [
            [['code' => 'A', 'attributes' => [['name' => 'x', 'kind' => 'choice']]]], '/types/0/attributes/0/options', 'without anything',
        ];
        yield 'default outside' => [
            [['code' => 'A', 'attributes' => [['name' => 'x', 'kind' => 'number', 'most' => 5, 'number' => 6]]]],
            '/types/0/attributes/0/number', 'outside its range',
        ];
        yield 'no kind' => [[['code' => 'A', 'kind' => 'cloud']], '/types/0/kind', 'point, line, area'];
        yield 'two attributes of a name' => [
            [['code' => 'A', 'attributes' => [['name' => 'x'], ['name' => 'X']]]], '/types/0/attributes/1/name', 'two attributes called X',
        ];
    }

    /** @param array<mixed> $types */
    #[DataProvider('refused')]
    public function testWhatCannotBeIsNamedByItsPlace(array $types, string $where, string $words): void
    {
        try {
            FeatureCatalogue::fromArray(['types' => $types]);
            self::fail('It was taken.');
        } catch (UnusableInput $e) {
            self::assertSame($where, $e->where);
            self::assertStringContainsString($words, $e->reason);
        }
    }

    public function testCollectedFeaturesAreHeldAgainstTheirType(): void
    {
        $type = FeatureType::fromArray(self::hydrant(), '');
        $good = ['state' => 'worn', 'bore' => '100', 'remark' => 'ok', 'day' => '2031-05-04', 'hour' => '16:02:30'];
        self::assertSame([], $type->faults(1, 10, 'carrier', 0.01, $good));
        $bad = ['state' => 'odd', 'bore' => '20', 'remark' => 'too long', 'day' => '2031-02-30', 'hour' => '25:00:00', 'more' => 'x'];
        self::assertSame([
            '9 positions are averaged where 10 are needed', 'needs a carrier solution, and has a code one',
            'is known to 0.500 m where 0.020 m are needed', '"odd" is none of the choices of state: good, worn',
            'bore is 20 mm, outside 50 to 200', 'remark is longer than 5 letters', 'day is no date such as 2031-05-04',
            'hour is no time such as 16:02:30', 'more is no attribute of HYDRANT',
        ], $type->faults(1, 9, 'code', 0.5, $bad));
        self::assertSame(['state is missing'], $type->faults(1, 10, 'carrier', 0.01, []));
        self::assertSame(['a line has at least 2 places, this one has 1'], FeatureType::fromArray(
            ['code' => 'K', 'kind' => 'line'], '',
        )->faults(1, 1, 'any', 0.0, []));
    }

    public function testLinesFromCodes(): void
    {
        $at = static fn (string $name, string $code, float $e, float $n): array => [
            'name' => $name, 'code' => $code, 'e' => $e, 'n' => $n, 'h' => 10.0 + 0.1 * $e,
        ];
        // Two kerbs measured to and fro at the same time, a tree between them, and a lawn that closes.
        $read = Linework::of([
            $at('1', 'KERB 1 start', 0.0, 0.0), $at('2', 'KERB 2 start', 0.0, 6.0), $at('3', 'TREE', 1.0, 3.0),
            $at('4', 'KERB 2', 9.0, 6.0),
            $at('5', 'KERB 1', 9.0, 0.0), $at('6', 'KERB 1 end', 18.0, 0.0), $at('7', 'KERB 2 end', 18.0, 6.0),
            $at('8', 'LAWN start', 30.0, 0.0), $at('9', 'LAWN', 40.0, 0.0), $at('10', 'LAWN close', 40.0, 10.0),
            $at('11', 'KERB start', 50.0, 0.0),
        ], ['KERB', 'LAWN']);
        self::assertSame([['1', '5', '6'], ['2', '4', '7'], ['8', '9', '10']], array_column($read['lines'], 'points'));
        self::assertSame([false, false, true], array_column($read['lines'], 'closed'));
        self::assertSame($read['lines'][2]['vertices'][0], $read['lines'][2]['vertices'][3]);
        self::assertSame(['KERB at 11 is a line of 1 point'], $read['faults']);
    }

    /** Thales: a right angle over a diameter; every chord's ends lie on the circle, and its middle within 5 mm of it. */
    public function testAnArcGoesThroughItsThreePlaces(): void
    {
        $at = static fn (string $name, string $code, float $e, float $n): array => compact('name', 'code', 'e', 'n') + ['h' => 5.0];
        foreach ([1.0, -1.0] as $side) {
            $read = Linework::of([
                $at('a', 'K start', -20.0, 0.0), $at('b', 'K', -10.0, 0.0), $at('c', 'K arc', 0.0, 10.0 * $side), $at('d', 'K', 10.0, 0.0),
                $at('e', 'K end', 20.0, 0.0),
            ], ['K']);
            $vertices = $read['lines'][0]['vertices'];
            self::assertGreaterThan(20, \count($vertices));
            foreach (\array_slice($vertices, 1, -1) as $i => [$e, $n]) {
                self::assertEqualsWithDelta(10.0, hypot($e, $n), 1e-9);
                self::assertGreaterThanOrEqual(-1e-9, $n * $side);
                if ($i > 0) {
                    [$pe, $pn] = $vertices[$i];
                    self::assertLessThan(0.0051, 10.0 - hypot(0.5 * ($e + $pe), 0.5 * ($n + $pn)));
                }
            }
        }
    }
}
