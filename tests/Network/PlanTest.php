<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;

/** What a planned network will be worth, against formulas that need no matrix. */
final class PlanTest extends ApiTestCase
{
    private const MARK = ['name' => 'P1', 'e' => 493400.0, 'n' => 6028600.0, 'h' => 240.0, 'held' => false];
    private const SETTINGS = [
        'withMeasured' => false, 'vectorPlan' => 0.003, 'vectorHeight' => 0.006, 'vectorPpm' => 0.0, 'perKm' => 0.001,
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
    }

    public function testAVectorGivesItsOwnPrecisionAndTwoTheirWeightedMean(): void
    {
        $sight = static fn (string $from, int $rounds = 1): array => [
            'from' => $from, 'to' => 'P1', 'kind' => 'vector', 'rounds' => $rounds,
        ];
        $one = $this->draft([self::MARK], [$sight('KT01')]);
        $p = array_column($one['stations'], null, 'name')['P1'];
        self::assertTrue($p['planned']);
        // From a held mark: 3 mm in every direction of the plan, 6 mm upwards; 95 % is 2.4477 times (chi-square, 2 degrees).
        // The scale of the grid there is 0.9996.
        self::assertEqualsWithDelta(2.44774683 * 0.003 * 0.9996, $p['semiMajor'], 1e-6);
        self::assertEqualsWithDelta(0.006, $p['sdH'], 2e-6);
        self::assertSame(0, $one['redundancy']);
        self::assertEqualsWithDelta(0.0, $one['worth'][0]['redundancy'], 1e-9);

        $four = $this->draft([self::MARK], [$sight('KT01', 4)]);
        self::assertEqualsWithDelta(0.003, array_column($four['stations'], null, 'name')['P1']['sdH'], 1e-6);

        // From a mark known to 4 mm as well: variances 9, and 9 + 16.
        $two = $this->draft([self::MARK], [$sight('KT01'), $sight('KT04')]);
        $p = array_column($two['stations'], null, 'name')['P1'];
        self::assertEqualsWithDelta(0.001 * sqrt(1.0 / (1.0 / 9.0 + 1.0 / 25.0)), $p['sdE'], 2e-6);
        self::assertSame(3, $two['redundancy']);
        // Redundancy number of the first: its share of the variance that the other one leaves.
        self::assertEqualsWithDelta(9.0 / (9.0 + 25.0), $two['worth'][0]['redundancy'], 0.05);
    }

    public function testLevelsAndPointingsCount(): void
    {
        $p = array_column($this->draft(
            [self::MARK],
            [
                ['from' => 'KT01', 'to' => 'P1', 'kind' => 'vector', 'rounds' => 1],
                ['from' => 'KT01', 'to' => 'P1', 'kind' => 'levelled', 'rounds' => 1],
            ],
        )['stations'], null, 'name')['P1'];
        $km = hypot(493400.0 - TruthModel::MARKS['KT01'][0], 6028600.0 - TruthModel::MARKS['KT01'][1]) / 1000.0;
        self::assertEqualsWithDelta(sqrt(1.0 / (1.0 / (1e-6 * $km) + 1.0 / 0.006 ** 2)), $p['sdH'], 1e-6);

        $free = $this->draft([self::MARK], [['from' => 'KT04', 'to' => 'P1', 'kind' => 'pointing', 'rounds' => 1]]);
        self::assertNotNull($free['fault'], 'One direction alone has no orientation.');
        $with = $this->draft([self::MARK], [
            ['from' => 'KT04', 'to' => 'P1', 'kind' => 'pointing', 'rounds' => 2],
            ['from' => 'KT04', 'to' => 'KT01', 'kind' => 'pointing', 'rounds' => 2],
        ]);
        self::assertNull($with['fault']);
        self::assertLessThan(0.01, array_column($with['stations'], null, 'name')['P1']['sdE']);
    }

    public function testItIsKeptBesideWhatIsMeasuredAndUndone(): void
    {
        $this->accept('rounds.csv', (new Generator(new TruthModel()))->files()['rounds-crest.csv']);
        $this->accept('vectors.csv', (new Generator(new TruthModel()))->files()['vectors-static.csv']);
        $sights = [['from' => 'KT06', 'to' => 'P1', 'kind' => 'vector', 'rounds' => 1]];
        $body = ['marks' => [self::MARK], 'sights' => $sights, 'withMeasured' => true];
        $this->call('PUT', '/plan', $body, 200);
        $plan = $this->get('/plan');
        self::assertNull($plan['fault']);
        self::assertCount(13, $plan['stations'], 'Twelve marks of the measured network and the planned one.');
        self::assertEquals([self::MARK], $plan['marks']);
        self::assertStringContainsString('1 marks, 1 sights', $this->get('/ledger')['entries'][0]['title']);
        $this->headers = ['HTTP_IF_MATCH' => '"999"'];
        self::assertStringContainsString('The plan', $this->call('PUT', '/plan', $body, 409)['detail']);
        $this->headers = [];
        $this->post('/ledger/'.$this->get('/ledger')['entries'][0]['seq'].'/undo');
        self::assertSame([], $this->get('/plan')['marks']);
    }

    public function testWhatIsWrongIsNamed(): void
    {
        $sight = ['from' => 'KT01', 'to' => 'P1', 'kind' => 'vector', 'rounds' => 1];
        foreach ([
            [['marks' => [['name' => ''] + self::MARK], 'sights' => []], '/name of up to 60/'],
            [['marks' => [self::MARK, self::MARK], 'sights' => []], '/P1 is planned twice/'],
            [['marks' => [['e' => 'x'] + self::MARK], 'sights' => []], '/number of metres/'],
            [['marks' => [], 'sights' => [['from' => 'P1'] + $sight]], '/from one named mark to another/'],
            [['marks' => [], 'sights' => [['kind' => 'guess'] + $sight]], '/pointing, vector, levelled/'],
            [['marks' => [], 'sights' => [['rounds' => 0] + $sight]], '/1 to 50/'],
        ] as [$body, $why]) {
            self::assertMatchesRegularExpression($why, json_encode($this->post('/plan/draft', $body, 422), \JSON_THROW_ON_ERROR));
        }
        self::assertMatchesRegularExpression('/P1 is neither planned/', (string) $this->draft([], [$sight])['fault']);
        $here = ['name' => 'P1', 'e' => TruthModel::MARKS['KT01'][0], 'n' => TruthModel::MARKS['KT01'][1], 'h' => 1.0, 'held' => false];
        self::assertMatchesRegularExpression('/at one place/', (string) $this->draft([$here], [$sight])['fault']);
    }

    /**
     * @param list<array<string, mixed>> $marks
     * @param list<array<string, mixed>> $sights
     *
     * @return array<mixed>
     */
    private function draft(array $marks, array $sights): array
    {
        return $this->post('/plan/draft', ['marks' => $marks, 'sights' => $sights] + self::SETTINGS, 200);
    }
}
