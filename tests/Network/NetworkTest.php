<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;
use Demo\TruthModel;

/** The demo network against its truth model: what was planted is found, what is left agrees with the truth. */
final class NetworkTest extends ApiTestCase
{
    public function testScreeningFindsExactlyThePlantedBlundersAndTheRestAgreesWithTheTruth(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $network = $this->get('/network');
        self::assertSame('Adjustment 1 fails its global test', $network['runs'][0]['headline']);

        $proposals = $this->job('/network/screen')['outcome']['proposals'];
        $texts = array_column($proposals, 'text');
        sort($texts);
        // An error upwards of a geocentric vector shows in two of its components at this latitude.
        self::assertSame([
            'direction KT03/2 to KT07', 'slope-distance KT05/1 to KT09', 'vector dx KT01/S3 to KT08',
            'vector dz KT01/S3 to KT08', 'zenith KT10/1 to KT06',
        ], $texts);
        self::assertCount(2, $this->job('/network/screen', ['limit' => 3.29, 'most' => 2])['outcome']['proposals']);
        $this->post('/network/screen', ['limit' => 3.29, 'most' => 0], 422);
        self::assertSame(
            0,
            array_sum(array_map(static fn (array $r): int => (int) !$r['used'], $this->get('/network')['rows'])),
            'Proposals change nothing.',
        );

        $this->post('/network/use', [
            'rows' => array_map(static fn (array $p): array => ['id' => $p['id'], 'component' => $p['component']], $proposals),
            'aside' => true,
            'reason' => 'screened',
        ]);
        $this->job('/network/adjust');
        $network = $this->get('/network');
        self::assertTrue($network['runs'][0]['passed']);
        self::assertSame(1, $network['comparison']['previousRun']);
        self::assertGreaterThan(0.001, $network['comparison']['largest']);
        foreach ($network['stations'] as $s) {
            [$e, $n, $h] = TruthModel::MARKS[$s['name']];
            // Three and a half standard deviations, and half a millimetre of rounding in the files.
            self::assertEqualsWithDelta($e, $s['e'], 3.5 * $s['sdE'] + 0.0005, $s['name'].' e');
            self::assertEqualsWithDelta($n, $s['n'], 3.5 * $s['sdN'] + 0.0005, $s['name'].' n');
            self::assertEqualsWithDelta($h, $s['h'], 3.5 * $s['sdH'] + 0.0005, $s['name'].' h');
        }
        // Each blunder is estimated by its predicted residual: adjusted minus observed is minus the blunder.
        $b = TruthModel::BLUNDERS;
        $residual = static fn (string $kind, string $at, string $set, string $to): float => array_values(array_filter(
            $network['rows'],
            static fn (array $r): bool => !$r['used'] && [$r['kind'], $r['at'], $r['set'], $r['to']] === [$kind, $at, $set, $to],
        ))[0]['residual'];
        self::assertEqualsWithDelta(-$b['direction']['degrees'], $residual('direction', 'KT03', '2', 'KT07'), 8.0 / 3600.0);
        self::assertEqualsWithDelta(-$b['distance']['metres'], $residual('slope-distance', 'KT05', '1', 'KT09'), 0.006);

        $this->post('/network/accept');
        self::assertTrue($this->get('/network')['accepted']);
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertSame('adjusted', $points['KT05']['source']);
        self::assertEqualsWithDelta(TruthModel::MARKS['KT05'][0], $points['KT05']['e'], 0.01);
        self::assertSame(round($network['stations'][0]['e'], 5), $points[$network['stations'][0]['name']]['e']);
    }

    public function testTheVerdictNamesTheSetupThatCarriesTheExcess(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $run = $this->get('/network')['runs'][0];
        self::assertMatchesRegularExpression(
            '/^Variance factor \d+\.\d\d, expected between 0\.\d\d and 1\.\d\d \(95 %, 159 redundant\)\.$/',
            $run['sentences'][0],
        );
        self::assertStringContainsString('The excess sits in the zenith angles of KT10/1', $run['sentences'][1]);
    }

    public function testTwoRunsAreCompared(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $worst = array_values(array_filter($this->get('/network')['rows'], static fn (array $r): bool => $r['flagged']));
        usort($worst, static fn (array $a, array $b): int => abs($b['standardized']) <=> abs($a['standardized']));
        $this->post('/network/use', ['rows' => [['id' => $worst[0]['id'], 'component' => $worst[0]['component']]], 'aside' => true]);
        $this->job('/network/adjust');
        $compared = $this->get('/network/runs/1/2');
        self::assertSame([1, 2], [$compared['earlier'], $compared['later']]);
        self::assertGreaterThan($compared['laterFactor'], $compared['earlierFactor']);
        self::assertContains('set aside', array_column($compared['changed'], 'verdict', 'id'));
        $length = static fn (array $s): float => sqrt($s['e'] ** 2 + $s['n'] ** 2 + $s['h'] ** 2);
        self::assertEqualsWithDelta($this->get('/network')['comparison']['largest'], $length($compared['shifts'][0]), 1e-12);
        self::assertGreaterThanOrEqual($length($compared['shifts'][1]), $length($compared['shifts'][0]));
        $this->get('/network/runs/1/9', 422);
    }

    public function testWeightsOfGroupsAreProposedWithTheirEffectAndTaken(): void
    {
        $this->acceptDemoFiles();
        $proposals = $this->job('/network/screen')['outcome']['proposals'];
        $rows = array_map(static fn (array $p): array => ['id' => $p['id'], 'component' => $p['component']], $proposals);
        $this->post('/network/use', ['rows' => $rows, 'aside' => true, 'reason' => 'screened']);
        $settings = $this->get('/network')['settings'];
        $wrong = ['directionSd' => 3.0 * $settings['directionSd']] + $settings;
        $this->call('PUT', '/network/settings', $wrong, 200);
        $this->job('/network/adjust');
        self::assertSame(
            ['direction'],
            array_column(array_filter($this->get('/network')['kinds'], static fn (array $g): bool => 'low' === $g['standing']), 'kind'),
        );
        $outcome = $this->job('/network/components', ['by' => 'kind'])['outcome'];
        $factors = array_column($outcome['components'], 'proposed', 'group');
        self::assertEqualsWithDelta(1.0, $outcome['after'], 0.05);
        // Centring is part of a direction's precision and was not made worse, so a little less than a third.
        self::assertEqualsWithDelta(0.42, $factors['direction'], 0.12);
        self::assertEqualsWithDelta(
            3.0 * $settings['directionSd'], $this->get('/network')['settings']['directionSd'], 1e-12,
            'A proposal changes nothing.',
        );
        $this->call('PUT', '/network/settings', ['factors' => $factors] + $wrong, 200);
        $this->job('/network/adjust');
        self::assertEqualsWithDelta($outcome['after'], $this->get('/network')['runs'][0]['varianceFactor'], 1e-3);
        $sessions = array_column($this->job('/network/components', ['by' => 'setup'])['outcome']['components'], 'group');
        self::assertContains('vector S5', $sessions);
        self::assertContains('direction KT03/1', $sessions);
        $this->call('PUT', '/network/settings', ['factors' => ['direction' => 'x']] + $wrong, 422);
    }

    public function testSettingAsideWhatAStationHangsOnIsRefusedByName(): void
    {
        $this->acceptDemoFiles();
        $rows = array_values(array_filter(
            $this->get('/network')['rows'], static fn (array $r): bool => 'KT12' === $r['to'] || 'KT12' === $r['at'],
        ));
        self::assertNotSame([], $rows);
        $answer = $this->post('/network/use', [
            'rows' => array_map(static fn (array $r): array => ['id' => $r['id'], 'component' => $r['component']], $rows), 'aside' => true,
        ], 422);
        self::assertMatchesRegularExpression('/not determined any more: KT12/', json_encode($answer, \JSON_THROW_ON_ERROR));
        self::assertSame(
            [],
            array_filter($this->get('/network')['rows'], static fn (array $r): bool => !$r['used']),
            'Nothing is set aside.',
        );
    }

    public function testRowsCarryTheirSource(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $row = $this->get('/network')['rows'][0];
        self::assertSame('rounds-crest.csv', $row['file']);
        self::assertSame(3, $row['line']);
        $lines = $this->get("/intake/{$row['fileId']}/lines/3");
        self::assertSame([2, 3, 4], array_column($lines, 'line'));
        self::assertStringStartsWith('KT02;1;', $lines[1]['text']);
        self::assertEqualsWithDelta(1000.0 * deg2rad($row['residual']) * hypot(
            TruthModel::MARKS[$row['at']][0] - TruthModel::MARKS[$row['to']][0],
            TruthModel::MARKS[$row['at']][1] - TruthModel::MARKS[$row['to']][1],
        ), $row['groundMm'], 0.01);
    }

    public function testNetworksThatCannotBeSolvedSayWhich(): void
    {
        self::assertStringContainsString('there are no observations yet', (string) $this->job('/network/adjust')['error']);
        $this->accept(
            'obs.csv',
            "station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\nA,1.5,B,1.5,0,90,100\nA,1.5,C,1.5,90,90,100\n",
        );
        self::assertMatchesRegularExpression('/A, B, C: no approximate .* can be found/', (string) $this->job('/network/adjust')['error']);
        $this->accept('control.csv', "point,easting [m],northing [m],height [m],held\nA,493000,6028000,200,no\nB,493000,6028100,200,no\n");
        self::assertMatchesRegularExpression(
            '/A, B, C: datum defect: nothing fixes their position east, position north, height, rotation about the '
                .'vertical; hold or weight/',
            (string) $this->job('/network/adjust')['error'],
        );
        $this->call('PUT', '/control', ['point' => 'A', 'e' => 493000.0, 'n' => 6028000.0, 'h' => 200.0, 'held' => 'enh'], 200);
        $this->call('PUT', '/control', ['point' => 'B', 'e' => 493000.0, 'n' => 6028100.0, 'h' => 200.0, 'held' => 'enh'], 200);
        self::assertNull($this->job('/network/adjust')['error']);
        // One direction to a mark is not enough; which mark, is said.
        $this->accept('more.csv', "station,hi [m],target,ht [m],direction [deg]\nA,1.5,D,1.5,45\n");
        $this->accept('dpos.csv', "point,easting [m],northing [m],height [m],code\nD,493050,6028050,201,X\n");
        self::assertMatchesRegularExpression('/D: plan position not determined/', (string) $this->job('/network/adjust')['error']);
        self::assertSame(
            [],
            array_filter($this->get('/network')['runs'], static fn (array $r): bool => 2 === $r['run']),
            'A failed run leaves nothing.',
        );
    }

    public function testZeroRedundancyIsSaidAndNotCalledATest(): void
    {
        $this->accept(
            'control.csv',
            "point,easting [m],northing [m],height [m],held\nA,493000,6028000,200,enh\nB,493000,6028100,200,enh\n",
        );
        $this->accept(
            'obs.csv',
            "station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance [m]\nA,1.5,B,1.5,0,,\nA,1.5,C,1.5,90,90,100\n",
        );
        $this->job('/network/adjust');
        $run = $this->get('/network')['runs'][0];
        self::assertNull($run['passed']);
        self::assertSame('Adjustment 1 has nothing to test', $run['headline']);
        self::assertSame(['no redundancy: nothing checks these observations'], $run['warnings']);
    }

    public function testComponentsOfAVectorAreSetAsideAlone(): void
    {
        $this->acceptDemoFiles();
        $id = (int) $this->database()->fetchOne(
            "SELECT id FROM observation WHERE kind = 'vector' AND to_name = 'KT08' AND project_id = ?",
            [$this->project],
        );
        $this->post('/network/use', ['rows' => [['id' => $id, 'component' => 'dz']], 'aside' => true, 'reason' => 'height']);
        $rows = array_column(
            array_filter($this->get('/network')['rows'], static fn (array $r): bool => $r['id'] === $id),
            'used',
            'component',
        );
        self::assertSame(['dx' => true, 'dy' => true, 'dz' => false], $rows);
        $this->post('/network/use', ['rows' => [['id' => $id, 'component' => null]], 'aside' => false]);
        self::assertSame('', $this->get('/network')['rows'][0]['reason']);
        $this->post('/network/use', ['rows' => [['id' => $id, 'component' => 'up']], 'aside' => true], 422);
    }

    public function testRenamingRelinksObservationsAndRefusesWhatSightsItself(): void
    {
        $this->acceptDemoFiles();
        $this->post('/points/rename', ['from' => 'KT12', 'to' => 'KT12A']);
        self::assertSame(0, (int) $this->database()->fetchOne(
            "SELECT COUNT(*) FROM observation WHERE project_id = ? AND 'KT12' IN (from_name, to_name)",
            [$this->project],
        ));
        self::assertStringContainsString(
            'observe each other',
            $this->post('/points/rename', ['from' => 'KT02', 'to' => 'KT03'], 422)['detail'],
        );
        self::assertStringContainsString(
            'there is no point ZZ',
            $this->post('/points/rename', ['from' => 'ZZ', 'to' => 'YY'], 422)['detail'],
        );
    }

    public function testAPlaneProjectAdjustsToo(): void
    {
        $this->signIn($user = $this->account('planar'));
        $this->project = $this->projectOf($user, 'plane')->id();
        $this->accept('control.csv', "point,easting [ft],northing [ft],height [ft],held\nA,1000,1000,10,enh\nB,1000,1300,10,enh\n");
        $this->accept(
            'obs.csv',
            'station,hi [m],target,ht [m],direction [gon],zenith [gon],slope distance '
                ."[m]\nA,0,B,0,0,100,91.44\nA,0,C,0,50,100,100\nB,0,A,0,200,100,91.44\nB,0,C,0,124.2,100,74\n",
        );
        $this->job('/network/adjust');
        $c = array_column($this->get('/network')['stations'], null, 'name')['C'];
        self::assertEqualsWithDelta(304.8 + 70.7107, $c['e'], 1.0);
        self::assertEqualsWithDelta(3.048, $c['h'], 0.01);
    }

    public function testSettingsAreCheckedAndMatter(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $settings = $this->get('/network')['settings'];
        self::assertStringContainsString(
            'directionSd',
            $this->call('PUT', '/network/settings', ['directionSd' => -1] + $settings, 422)['detail'],
        );
        $this->call('PUT', '/network/settings', ['directionSd' => 15.0] + $settings, 200);
        self::assertSame(['the network settings changed'], $this->get('/network')['stale']);
        $before = $this->get('/network')['kinds'][0]['factor'];
        $this->job('/network/adjust');
        self::assertLessThan($before / 20.0, $this->get('/network')['kinds'][0]['factor']);
    }
}
