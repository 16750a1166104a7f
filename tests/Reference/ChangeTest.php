<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;

/** Changing what a project's coordinates mean. */
final class ChangeTest extends ApiTestCase
{
    private const MARKS = 'point,easting [m],northing [m],ellipsoidal height '
        ."[m],held\nA,493612.345,6028050.5,221.25,enh\nB,493200,6028400,244.26,no\n";

    /** Values by cs2cs of PROJ 9.1.1. */
    public function testEverythingKnownGloballyFollows(): void
    {
        $this->accept('c.csv', self::MARKS);
        $change = ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'];
        $preview = $this->post('/reference/preview', $change);
        self::assertSame([2, 0, ''], [$preview['moved'], $preview['localOnly'], $preview['problem']]);
        self::assertEqualsWithDelta(882909.05712, $preview['rows'][0]['newE'], 1e-4);
        self::assertEqualsWithDelta(493612.345, $this->get('/points')['points'][0]['e'], 1e-9, 'A preview moves nothing.');
        self::assertStringContainsString('outside the area of use', implode('', $preview['warnings']));
        $this->call('PUT', '/reference', $change, 200);
        $a = $this->get('/points')['points'][0];
        foreach ([
            'e' => 882909.05712, 'n' => 6044104.547, 'h' => 221.25, 'givenE' => 882909.05712, 'givenN' => 6044104.547,
        ] as $key => $value) {
            self::assertEqualsWithDelta($value, $a[$key], 1e-4, $key);
        }
        $entry = $this->get('/ledger')['entries'][0];
        self::assertStringContainsString('2 points followed', $entry['title']);
        $this->post("/ledger/{$entry['seq']}/undo");
        self::assertSame(493612.345, $this->get('/points')['points'][0]['e']);
    }

    public function testAnotherDatumNamesItsWayAndAMissingGridIsNotReplacedSilently(): void
    {
        $this->accept('c.csv', self::MARKS);
        $change = ['reference' => 'EPSG:27700', 'heights' => 'ellipsoidal'];
        $preview = $this->post('/reference/preview', $change);
        self::assertStringContainsString('OSTN15', $preview['problem']);
        self::assertStringContainsString('choose another transformation yourself', $preview['problem']);
        $this->call('PUT', '/reference', $change, 422);
        $usable = array_values(array_filter($preview['candidates'], static fn (array $c): bool => $c['usable'] && $c['covers']));
        self::assertNotSame([], $usable);
        self::assertContains('OSGB36 to ETRS89 (2)', array_map(
            static fn (array $c): string => (string) preg_replace('/^Inverse of /', '', $c['name']),
            array_filter($preview['candidates'], static fn (array $c): bool => !$c['usable']),
        ), 'The grid way is listed as well.');
        $way = $usable[0];
        self::assertNotNull($way['accuracy']);
        $chosen = $this->post('/reference/preview', $change + ['operation' => $way['name']]);
        self::assertSame('', $chosen['problem']);
        // By seven parameters, 2 m accurate: near the value of cs2cs without grids.
        self::assertEqualsWithDelta(328790.17, $chosen['rows'][0]['newE'], 3.0);
        $this->call('PUT', '/reference', $change + ['operation' => $way['name']], 200);
        self::assertStringContainsString(
            $way['name'],
            (string) json_encode($this->get('/ledger/'.$this->get('/ledger')['entries'][0]['seq'])),
        );
    }

    /** Feet belong to the file and the display; what is stored is metres. Values by cs2cs of PROJ 9.1.1, in US survey feet. */
    public function testASystemInFeetIsStoredInMetres(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:26910', 'heights' => 'ellipsoidal'], 200);
        $this->accept('c.csv', "point,easting [m],northing [m],ellipsoidal height [m],held\nA,543000,4500000,100,enh\n");
        $this->call('PUT', '/reference', ['reference' => 'EPSG:2225', 'heights' => 'ellipsoidal'], 200);
        $a = $this->get('/points')['points'][0];
        self::assertEqualsWithDelta(6425323.432887 * 1200.0 / 3937.0, $a['e'], 1e-4);
        self::assertEqualsWithDelta(2120357.111402 * 1200.0 / 3937.0, $a['n'], 1e-4);
        self::assertSame(100.0, (float) $a['h']);
        self::assertSame('US survey foot', $this->get('/reference')['system']['unit']);
    }

    public function testResultsGoStaleAndRecompute(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->post('/network/accept');
        $distance = static function (array $points): float {
            $by = array_column($points, null, 'name');

            return hypot($by['KT01']['e'] - $by['KT09']['e'], $by['KT01']['n'] - $by['KT09']['n']);
        };
        $before = $distance($this->get('/points')['points']);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:32630', 'heights' => 'ellipsoidal'], 200);
        self::assertContains('network', array_keys($this->stale()));
        self::assertSame('done', $this->job('/recompute')['state']);
        self::assertSame([], $this->stale());
        self::assertEqualsWithDelta($before, $distance($this->get('/points')['points']), 1e-3);
    }

    public function testLocalPointsStayAndSaySo(): void
    {
        $this->accept('c.csv', self::MARKS);
        $local = $this->bring('site.csv', "point,easting [m],northing [m],height [m],code\nL1,100,200,10,X\nL2,150,200,11,X\n");
        $local = $this->call('PUT', "/intake/{$local['id']}/meaning", ['frame' => 'local'], 200);
        self::assertSame([], $local['meaning']['asks']);
        $this->post("/intake/{$local['id']}/accept");
        self::assertSame(['global', 'global', 'local', 'local'], array_column($this->get('/points')['points'], 'known'));
        $preview = $this->post('/reference/preview', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal']);
        self::assertSame([2, 2], [$preview['moved'], $preview['localOnly']]);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200);
        self::assertStringContainsString('2 known only locally stay', $this->get('/ledger')['entries'][0]['title']);
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertSame([100.0, 200.0], [(float) $points['L1']['e'], (float) $points['L1']['n']]);
        $this->job('/handover', ['kind' => 'csv', 'surfaces' => []]);
        self::assertContains('2 points known only locally', $this->get('/handover')['exports'][0]['leftOut'] ?? []);
    }

    public function testAPlaneProjectGivenASystemKeepsItsPointsLocal(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $this->accept('p.csv', "point,easting [m],northing [m],height [m],code\nP1,10,20,3,A\nP2,11,20,3,A\n");
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'ellipsoidal'], 200);
        $p = $this->get('/points')['points'][0];
        self::assertSame([10.0, 'local'], [(float) $p['e'], $p['known']]);
        self::assertSame(2, $this->get('/reference')['localPoints']);
        self::assertNull($this->get('/reference')['extent']);
    }

    public function testHeightsChangeByTheGeoid(): void
    {
        $this->accept('c.csv', self::MARKS);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'], 200);
        $a = $this->get('/points')['points'][0];
        // N of EGM96 at 54.400168° N 3.098394° W by cs2cs EPSG:4979 to EPSG:4326+5773: 52.92 m.
        self::assertEqualsWithDelta(221.25 - 52.92, $a['h'], 0.02);
        self::assertEqualsWithDelta(493612.345, $a['e'], 1e-9, 'Heights alone move.');
        self::assertSame('egm96_15.gtx', $this->get('')['geoid']);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830', 'heights' => 'ellipsoidal'], 200);
        self::assertEqualsWithDelta(221.25, $this->get('/points')['points'][0]['h'], 1e-9);
    }

    public function testWhatCannotBeIsSaid(): void
    {
        $this->accept('c.csv', self::MARKS);
        foreach ([
            [['reference' => 'EPSG:999999', 'heights' => 'ellipsoidal'], 'not in the registry'],
            [['reference' => 'EPSG:25830', 'heights' => 'local'], 'ellipsoidal heights or heights above a geoid'],
            [['reference' => 'plane', 'heights' => 'ellipsoidal'], 'a plane local system has local heights'],
            [['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'installed:none.gtx'], 'is not installed'],
            [['reference' => 'EPSG:25830', 'heights' => 'geoid', 'geoid' => 'grid:77'], 'no such geoid'],
            [
                ['reference' => 'EPSG:27700', 'heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'],
                'make a geoid extract on that ellipsoid first',
            ],
            [['reference' => 'custom:5', 'heights' => 'ellipsoidal'], 'no such system'],
        ] as [$body, $reason]) {
            self::assertStringContainsString($reason, $this->call('PUT', '/reference', $body, 422)['detail']);
        }
        self::assertSame(493612.345, $this->get('/points')['points'][0]['e']);
    }
}
