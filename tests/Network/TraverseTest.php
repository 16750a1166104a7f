<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;

/** Traverses, set-ups on their own and eccentric targets, against the truth the files were simulated from. */
final class TraverseTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->accept('control.csv', (new Generator(new TruthModel()))->files()['control-kestrel-tarn.csv']);
    }

    public function testALandXmlTraverseIsFoundAndBalancedBothWays(): void
    {
        $this->accept('road.xml', (new Generator(new TruthModel()))->traverse());
        $t = $this->post('/traverse/draft', [], 200);
        self::assertNull($t['fault']);
        self::assertCount(1, $t['found'], 'One line, not once from either end.');
        self::assertSame(['KT01', 'KT04'], [$t['back'], $t['fore']]);
        self::assertSame(['KT07', 'T1', 'T2', 'T3', 'T4', 'KT08'], array_column($t['stations'], 'name'));
        self::assertLessThan($t['angularAllowed'], abs($t['angularMisclosure']));
        self::assertGreaterThan(10000.0, $t['ratio']);
        self::assertLessThan($t['linearAllowed'], $t['linear']);
        self::assertTrue($t['passed']);
        foreach ($t['stations'] as $s) {
            if (!isset(TruthModel::ROAD[$s['name']])) {
                continue;
            }
            [$e, $n] = TruthModel::ROAD[$s['name']];
            self::assertEqualsWithDelta($e, $s['e'], 0.015);
            self::assertEqualsWithDelta($n, $s['n'], 0.015);
            self::assertEqualsWithDelta($e, $s['rigorousE'], 0.015);
            self::assertEqualsWithDelta($n, $s['rigorousN'], 0.015);
            self::assertLessThan(0.01, abs((float) $s['thereLessBack']));
        }

        // Lengths on the grid are those of the coordinates.
        [$e1, $n1] = TruthModel::ROAD['T1'];
        [$e2, $n2] = TruthModel::ROAD['T2'];
        self::assertEqualsWithDelta(hypot($e2 - $e1, $n2 - $n1), $t['stations'][1]['distance'], 0.004);
    }

    public function testRoundsOfALandXmlFileAreNotSetUps(): void
    {
        $preview = $this->bring('road.xml', (new Generator(new TruthModel()))->traverse());
        self::assertSame(['setups' => 6, 'pointings' => 48, 'targets' => 8, 'distances' => 48], $preview['counts']);
        self::assertSame([[], []], [$preview['columns'], $preview['fields']]);
        $this->call('PUT', "/intake/{$preview['id']}/mapping", ['kind' => 'vectors'], 422);
    }

    public function testALineOfOnesOwnIsTakenAndWhatLacksIsNamed(): void
    {
        $this->accept('road.xml', (new Generator(new TruthModel()))->traverse());
        $open = $this->post('/traverse/draft', ['back' => 'KT01', 'stations' => ['KT07', 'T1', 'T2']], 200);
        self::assertNull($open['fault']);
        self::assertNull($open['linear']);
        self::assertEqualsWithDelta(TruthModel::ROAD['T2'][0], $open['stations'][2]['e'], 0.015);
        foreach ([
            [['stations' => ['KT07', 'T1']], '/needs a backsight/'],
            [['back' => 'KT01', 'stations' => ['KT07', 'T3']], '/no set-up on KT07 sights both KT01 and T3/'],
            [['back' => 'KT01', 'stations' => ['KT07', 'T1', 'T2'], 'fore' => 'T3'], '/T2 has no coordinates/'],
            [['back' => 'KT01', 'stations' => ['KT07']], '/two stations/'],
        ] as [$body, $why]) {
            self::assertMatchesRegularExpression($why, (string) $this->post('/traverse/draft', $body, 200)['fault']);
        }
    }

    public function testWithoutATraverseNothingIsFound(): void
    {
        self::assertSame([[], []], [$this->post('/traverse/draft', [], 200)['found'], $this->post('/traverse/draft', [], 200)['stations']]);
    }

    public function testReducedLengthsGoDownToTheEllipsoidAndTheGrid(): void
    {
        $this->accept('road.xml', (new Generator(new TruthModel()))->traverse());
        $setup = $this->setupOn('KT07');
        self::assertEqualsWithDelta(4.1 / 3600.0, $setup['collimation'], 3.0 / 3600.0);
        self::assertEqualsWithDelta(-6.3 / 3600.0, $setup['index'], 3.0 / 3600.0);
        $t = $setup['targets'][0];
        // Height of KT07 and the instrument over the mean radius there; the grid by the coordinates of both marks.
        self::assertEqualsWithDelta(1.0 - 227.6 / 6383000.0, $t['ellipsoid'] / $t['horizontal'], 1e-7);
        [$e1, $n1] = TruthModel::MARKS['KT07'];
        [$e2, $n2] = TruthModel::MARKS['KT01'];
        self::assertEqualsWithDelta(hypot($e2 - $e1, $n2 - $n1), $t['grid'], 0.005);
    }

    public function testASetUpIsPlacedByResectionAndRadialPointsFollow(): void
    {
        $this->accept('rounds.csv', (new Generator(new TruthModel()))->files()['rounds-crest.csv']);
        $setup = $this->setupOn('KT02');
        $placed = $this->post('/book/places', ['setup' => $setup['key'], 'resection' => true], 200);
        self::assertNull($placed['fault']);
        self::assertSame([false, true], [$placed['stationKnown'], $placed['resection']]);
        self::assertSame(['KT01', 'KT04'], $placed['held']);
        self::assertSame('KT02', $placed['places'][0]['name']);
        foreach ($placed['places'] as $p) {
            foreach (['e', 'n', 'h'] as $c => $key) {
                self::assertEqualsWithDelta(TruthModel::MARKS[$p['name']][$c], $p[$key], 0.03, $p['name'].' '.$key);
            }
        }
        self::assertSame(['KT01', 'KT04'], array_column($placed['checks'], 'target'));
        self::assertLessThan(0.02, abs($placed['checks'][0]['along']));
        self::assertStringContainsString(
            'two sighted marks', (string) $this->post('/book/places', ['setup' => $setup['key'], 'held' => ['KT01']], 200)['fault'],
        );
        $this->post('/book/places', ['setup' => 'X|1'], 422);
    }

    public function testATargetBesideItsMarkIsReducedToItAndWithdrawn(): void
    {
        $this->accept('road.xml', (new Generator(new TruthModel()))->traverse());
        $before = $this->setupOn('T2');
        $ids = array_values(array_column(
            array_filter($before['pointings'], static fn (array $p): bool => 'T3' === $p['target']), 'id',
        ));
        $this->post('/book/eccentric', ['pointings' => $ids, 'right' => 0.2, 'onwards' => 0.5, 'reason' => 'prism on the kerb'], 200);
        $after = $this->setupOn('T2');
        $of = static fn (array $setup): array => array_column($setup['targets'], null, 'target')['T3'];
        self::assertEqualsWithDelta(
            hypot($of($before)['horizontal'] + 0.5, 0.2), $of($after)['horizontal'], 2e-4,
        );
        self::assertTrue(array_column($after['pointings'], null, 'id')[$ids[0] ?? 0]['corrected']);
        $turn = $of($after)['direction'] - $of($before)['direction'];
        self::assertEqualsWithDelta(rad2deg(atan2(0.2, $of($before)['horizontal'] + 0.5)), $turn, 1e-6);

        self::assertStringContainsString('T3, which lies 0.200 m right, 0.500 m onwards', $this->get('/ledger')['entries'][0]['title']);
        $this->post('/book/eccentric', ['pointings' => $ids], 422);
        $this->post('/book/eccentric', ['pointings' => [999999], 'right' => 1], 422);
        $correction = $this->get('/network')['corrections'][0];
        $this->call('DELETE', '/network/corrections/'.$correction['id'], [], 200);
        self::assertSame($of($before)['horizontal'], $of($this->setupOn('T2'))['horizontal']);
    }

    /** @return array<string, mixed> */
    private function setupOn(string $station): array
    {
        return array_column($this->get('/book')['setups'], null, 'station')[$station];
    }
}
