<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;

/** The levelling book: written, worked out as it goes, kept, and handed to the network. */
final class LevelsTest extends ApiTestCase
{
    private const LEAVE = [
        'scalePpm' => 0, 'expansion' => 0, 'temperature' => 20, 'referenceTemperature' => 20, 'refraction' => 0.13,
        'curvature' => false,
    ];

    public function testARunIsWorkedOutAsItIsWritten(): void
    {
        $this->benchmarks();
        $draft = $this->draft([['back', 'BM1', 1.5, 20.0]]);
        self::assertEqualsWithDelta(101.5, $draft['rows'][0]['horizon'], 1e-12);
        $draft = $this->draft([
            ['back', 'BM1', 1.5, 20.0], ['intermediate', 'P1', 0.7, null], ['fore', 'T1', 1.2, 21.0],
            ['back', 'T1', 0.9, 25.0], ['fore', 'BM2', 0.701, null],
        ]);
        self::assertEqualsWithDelta(100.8, $draft['rows'][1]['h'], 1e-12);
        self::assertEqualsWithDelta(100.3, $draft['rows'][2]['h'], 1e-12);
        self::assertEqualsWithDelta(-1.0, $draft['rows'][2]['unbalance'], 1e-12);
        self::assertEqualsWithDelta(-0.001, $draft['rows'][4]['misclosure'], 1e-12);
        self::assertEqualsWithDelta(2.4 - 1.901, $draft['backs'] - $draft['fores'], 1e-12);
        self::assertNull($draft['length']);
        // What is not right is said where it stands, and the rest goes on.
        $draft = $this->draft([
            ['back', 'BM1', 1.5, 20.0], ['fore', 'T1', null, null], ['back', 'T2', 1.0, null],
            ['back', 'T2', 1.0, null],
        ]);
        self::assertSame([
            null,
            'no reading',
            'the setup before ended on T1; is a setup missing?',
            'a fore sight is due here; insert the one that is missing, or delete this',
        ], array_column($draft['rows'], 'fault'));
        $draft = $this->draft(
            [['back', 'BM1', 1.5, null], ['fore', 'T1', 1.2, null], ['fore', 'T1', 1.203, null], ['back', 'BM1', 1.5, null]],
            'BFFB',
        );
        self::assertTrue($draft['rows'][3]['isBeyond']);
        self::assertEqualsWithDelta(-0.003, $draft['rows'][3]['repeat'], 1e-12);
    }

    public function testKeptWorkedOutAndUndone(): void
    {
        $this->benchmarks();
        $seq = $this->keep(
            'north',
            [['back', 'BM1', 1.5, 20.0], ['fore', 'T1', 1.2, 20.0], ['back', 'T1', 0.9, 30.0], ['fore', 'BM2', 0.704, 30.0]],
        )['seq'];
        $book = $this->get('/levels');
        self::assertNull($book['fault']);
        self::assertEqualsWithDelta(-0.004, $book['sections'][0]['misclosure'], 1e-12);
        self::assertTrue($book['sections'][0]['passed'] === (0.004 <= 0.012 * sqrt(0.1)));
        self::assertEqualsWithDelta(0.004 / sqrt(0.1), $book['perKm'], 1e-12);
        $this->keep('south', [['back', 'BM2', 1.5, null]]);
        self::assertStringContainsString('run south', (string) $this->get('/levels')['fault']);
        $run = $this->get('/levels')['runs'][0];
        $this->headers = ['HTTP_IF_MATCH' => '"999"'];
        $this->call('PUT', '/levels/runs', ['id' => $run['id'], 'name' => 'north', 'pattern' => 'BF', 'rows' => []], 409);
        $this->headers = [];
        $this->call('PUT', '/levels/runs', ['name' => 'north', 'pattern' => 'BF', 'rows' => []], 422);
        $this->post("/ledger/$seq/undo");
        self::assertSame(['south'], array_column($this->get('/levels')['runs'], 'name'));
    }

    public function testHandedToTheNetworkWithWeights(): void
    {
        $this->benchmarks();
        $this->keep('1', [['back', 'BM1', 1.5, 200.0], ['fore', 'J', 1.2, 200.0]]);
        $this->keep('4', [['back', 'J', 0.9, 300.0], ['fore', 'BM2', 0.704, 300.0]]);
        $this->keep('2', [['back', 'J', 1.1, 250.0], ['fore', 'K', 1.0, 250.0]]);
        $this->keep('3', [['back', 'K', 1.0, 150.0], ['fore', 'J', 1.103, 150.0]]);
        $this->post('/levels/network', ['as' => 'raw', 'weight' => 'length', 'sigma' => 0.002]);
        $rows = $this->get('/network')['rows'];
        self::assertSame(['BM1', 'J', 'J', 'K'], array_column($rows, 'at'));
        self::assertEqualsWithDelta(0.002 * sqrt(0.4), $rows[0]['sd'], 1e-12);
        self::assertSame('level 1', $rows[0]['set']);
        // Handed again, they stand in the place of the first.
        $this->post('/levels/network', ['as' => 'adjusted', 'weight' => 'misclosure']);
        $rows = $this->get('/network')['rows'];
        self::assertCount(4, $rows);
        self::assertEqualsWithDelta(0.3, $rows[0]['observed'], 1e-9);
        self::assertNotNull($this->get('/points')['points'][0]);
        $this->job('/network/adjust');
        $network = $this->get('/network');
        self::assertTrue($network['runs'][0]['converged']);
        self::assertSame(2, $network['runs'][0]['redundancy']);
    }

    public function testALineMayLeaveAnotherOnItsWay(): void
    {
        $this->benchmarks();
        $this->keep('1', [['back', 'BM1', 1.5, 200.0], ['fore', 'J', 1.2, 200.0], ['back', 'J', 0.9, 300.0], ['fore', 'BM2', 0.7, 300.0]]);
        $this->keep('2', [['back', 'J', 1.1, 250.0], ['fore', 'K', 1.0, 250.0]]);
        $book = $this->get('/levels');
        self::assertNull($book['fault']);
        $heights = array_column($book['points'], 'h', 'id');
        self::assertEqualsWithDelta(100.3, $heights['J'], 1e-9);
        self::assertEqualsWithDelta(100.4, $heights['K'], 1e-9);
        self::assertSame(['BM1', 'J', 'J'], array_column($book['network'], 'from'), 'The network is cut where they meet.');
    }

    public function testAWeightByLengthIsRefusedWhereNoneIsKnown(): void
    {
        $this->benchmarks();
        $this->keep('west', [['back', 'BM1', 1.5, null], ['fore', 'J', 1.2, null]]);
        $answer = $this->call('POST', '/levels/network', ['as' => 'raw', 'weight' => 'length', 'sigma' => 0.002], 422);
        self::assertStringContainsString('run west, BM1 to J: a sight length is missing', json_encode($answer, \JSON_THROW_ON_ERROR));
        $answer = $this->call('POST', '/levels/network', ['as' => 'raw', 'weight' => 'misclosure'], 422);
        self::assertStringContainsString('nothing closes in this book', json_encode($answer, \JSON_THROW_ON_ERROR));
        $this->post('/levels/network', ['as' => 'raw', 'weight' => 'setups', 'sigma' => 0.0007]);
        self::assertEqualsWithDelta(0.0007, $this->get('/network')['rows'][0]['sd'], 1e-12);
    }

    public function testLevelledHeightsBecomeControl(): void
    {
        $this->acceptDemoFiles();
        $kt = array_column($this->get('/points')['points'], null, 'name')['KT01'];
        $this->keep('1', [['back', 'KT01', 1.5, 30.0], ['fore', 'P001', 1.0, 30.0]]);
        $this->post('/levels/control');
        $control = array_column($this->get('/points')['points'], null, 'name')['P001'];
        self::assertSame('h', $control['held']);
        self::assertEqualsWithDelta($kt['h'] + 0.5, $control['givenH'] ?? $control['h'], 1e-9);
    }

    public function testAFileOfADigitalLevelIsRead(): void
    {
        $runs = $this->post('/levels/read', [
            'text' => 'run;sight;point;reading [m];distance '
                ."[m]\nA;BS;BM1;1.2345;20.10\nA;FS;T1;1,1111;20,20\nB;back;T1;0.5;\nB;is;P;0.4;\nB;fore;T2;0.6;\n",
        ]);
        self::assertSame(['A', 'B'], array_column($runs, 'name'));
        self::assertSame(['kind' => 'fore', 'point' => 'T1', 'reading' => 1.1111, 'distance' => 20.2], $runs[0]['rows'][1]);
        self::assertSame('intermediate', $runs[1]['rows'][1]['kind']);
        $answer = $this->call('POST', '/levels/read', ['text' => "run;sight;point;reading\nA;BS;BM1;x\n"], 422);
        self::assertStringContainsString('line 2', json_encode($answer, \JSON_THROW_ON_ERROR));
    }

    public function testReportAndBookAreHandedOver(): void
    {
        $this->benchmarks();
        $this->keep(
            'north',
            [['back', 'BM1', 1.5, 20.0], ['fore', 'T1', 1.2, 20.0], ['back', 'T1', 0.9, 30.0], ['fore', 'BM2', 0.73, 30.0]],
        );
        foreach (['levels-csv', 'levels-pdf'] as $kind) {
            $this->job('/handover', ['kind' => $kind, 'surfaces' => []]);
            $export = array_column($this->get('/handover')['exports'], null, 'kind')[$kind];
            self::assertTrue($export['holds'], $kind.json_encode($export, \JSON_THROW_ON_ERROR));
        }
        $this->keep('south', [['back', 'BM2', 1.5, null]]);
        $stale = array_column($this->get('/handover')['exports'], 'stale', 'kind');
        self::assertNotSame([], $stale['levels-csv'], 'A run that was written since makes the report stale.');
    }

    private function benchmarks(): void
    {
        $settings = ['k' => 0.012, 'per' => 'km', 'distribute' => 'length', 'repeatLimit' => 0.0015] + self::LEAVE;
        $this->call(
            'PUT',
            '/levels/settings',
            $settings + ['benchmarks' => [['id' => 'BM1', 'h' => 100.0], ['id' => 'BM2', 'h' => 100.5]]],
            200,
        );
    }

    /**
     * @param list<array{string, string, ?float, ?float}> $rows
     *
     * @return array<mixed>
     */
    private function draft(array $rows, string $pattern = 'BF'): array
    {
        return $this->post('/levels/draft', ['name' => 'draft', 'pattern' => $pattern, 'rows' => self::rows($rows)]);
    }

    /**
     * @param list<array{string, string, ?float, ?float}> $rows
     *
     * @return array<mixed>
     */
    private function keep(string $name, array $rows): array
    {
        return $this->call('PUT', '/levels/runs', ['name' => $name, 'pattern' => 'BF', 'rows' => self::rows($rows)], 200);
    }

    /**
     * @param list<array{string, string, ?float, ?float}> $rows
     *
     * @return list<array<string, mixed>>
     */
    private static function rows(array $rows): array
    {
        return array_map(static fn (array $r): array => array_combine(['kind', 'point', 'reading', 'distance'], $r), $rows);
    }
}
