<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;
use Demo\TruthModel;

/** The same observations under other meanings of the coordinates: what must not change does not. */
final class GeoidNetworkTest extends ApiTestCase
{
    /** @return array{array<string, array<string, mixed>>, array<string, mixed>} stations by name, newest run */
    private function adjusted(): array
    {
        self::assertSame('done', $this->job('/network/adjust')['state']);
        $network = $this->get('/network');

        return [array_column($network['stations'], null, 'name'), $network['runs'][0]];
    }

    /** Heights above the geoid are ellipsoidal ones less N; nothing else about the network changes. */
    public function testHeightsAboveTheGeoidGiveTheSameNetwork(): void
    {
        $this->acceptDemoFiles();
        [$before, $run] = $this->adjusted();
        $this->call(
            'PUT',
            '/reference',
            ['reference' => TruthModel::SYSTEM, 'heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'],
            200,
        );
        [$after, $again] = $this->adjusted();
        self::assertEqualsWithDelta($run['varianceFactor'], $again['varianceFactor'], 1e-4);
        self::assertSame($run['redundancy'], $again['redundancy']);
        $factors = array_column($this->get('/reference/factors'), null, 'name');
        foreach ($before as $name => $s) {
            self::assertEqualsWithDelta($s['e'], $after[$name]['e'], 2e-5, $name);
            self::assertEqualsWithDelta($s['n'], $after[$name]['n'], 2e-5, $name);
            self::assertEqualsWithDelta($s['sdH'], $after[$name]['sdH'], 1e-6, $name);
            if (isset($factors[$name])) {
                self::assertEqualsWithDelta($s['h'] - $factors[$name]['n'], $after[$name]['h'], 2e-4, $name);
            }
        }
    }

    /** In another zone of the same datum the marks lie elsewhere on paper and at the same places on earth. */
    public function testAnotherZoneGivesTheSameMarks(): void
    {
        $this->acceptDemoFiles();
        [, $run] = $this->adjusted();
        $this->post('/network/accept');
        $line = array_column($this->get('/reference/inverse?from=KT01&to=KT09')['rows'], 'value', 'label');
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200);
        [, $again] = $this->adjusted();
        // Standard deviations of control are in metres of the grid, which are some per mille longer or shorter now.
        self::assertEqualsWithDelta(1.0, $again['varianceFactor'] / $run['varianceFactor'], 2e-3);
        $this->post('/network/accept');
        $other = array_column($this->get('/reference/inverse?from=KT01&to=KT09')['rows'], 'value', 'label');
        foreach (['ellipsoidal distance', 'slope distance', 'ground distance', 'height difference'] as $what) {
            self::assertEqualsWithDelta($line[$what], $other[$what], 5e-4, $what);
        }
        self::assertEqualsWithDelta($line['geodetic azimuth'], $other['geodetic azimuth'], 2e-6);
        self::assertGreaterThan(0.5, abs($line['grid distance'] - $other['grid distance']), 'On the grid it is another length.');
    }

    /** A low-distortion system of one's own serves the network as well as a registered one. */
    public function testAnOwnSystemServesTheNetwork(): void
    {
        $this->acceptDemoFiles();
        [$before, $run] = $this->adjusted();
        $id = $this->post('/reference/design', ['height' => 232.0, 'name' => 'Tarn low'], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$id, 'heights' => 'ellipsoidal'], 200);
        [$after, $again] = $this->adjusted();
        // Standard deviations of control are in metres of the grid, which are some per mille longer or shorter now.
        self::assertEqualsWithDelta(1.0, $again['varianceFactor'] / $run['varianceFactor'], 2e-3);
        self::assertEqualsWithDelta(
            $before['KT06']['semiMajor'], $after['KT06']['semiMajor'], 1e-5,
            'An ellipse 400 ppm larger is the same ellipse.',
        );
        $this->post('/network/accept');
        $rows = array_column($this->get('/reference/inverse?from=KT01&to=KT09')['rows'], 'value', 'label');
        self::assertEqualsWithDelta($rows['ground distance'], $rows['grid distance'], 0.002);
    }

    /** A point known only locally is a name without a place to the network. */
    public function testLocalNumbersDoNotHelpTheNetwork(): void
    {
        $local = $this->bring('site.csv', "point,easting [m],northing [m],height [m],held\nA,0,0,0,enh\nB,100,0,0,enh\n");
        $this->call('PUT', "/intake/{$local['id']}/meaning", ['frame' => 'local'], 200);
        $this->post("/intake/{$local['id']}/accept");
        $this->accept(
            'obs.csv',
            'station,hi [m],target,ht [m],direction [deg],zenith [deg],slope distance '
                ."[m]\nA,1.5,B,1.5,0,90,100\nA,1.5,C,1.5,90,90,100\nB,1.5,C,1.5,45,90,141.421\n",
        );
        $job = $this->job('/network/adjust');
        self::assertSame('failed', $job['state']);
        self::assertNotSame('', $job['error']);
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        self::assertSame('done', $this->job('/network/adjust')['state'], 'In a plane project the same numbers are its control.');
    }

    /**
     * The files were simulated on the normal of the ellipsoid: a plumb line turned by a hundred seconds does not fit, that of no
     * geoid does.
     */
    public function testTheDeflectionsCount(): void
    {
        $this->acceptDemoFiles();
        [$before, $run] = $this->adjusted();
        $settings = $this->get('/network')['settings'];
        $this->call('PUT', '/network/settings', ['deflections' => 'geoid'] + $settings, 200);
        foreach ($this->adjusted()[0] as $name => $s) {
            self::assertSame([$before[$name]['e'], $before[$name]['h']], [$s['e'], $s['h']], 'There is no geoid here.');
        }
        $this->call('PUT', '/network/settings', ['deflections' => 'measured', 'xi' => 100.0, 'eta' => -100.0] + $settings, 200);
        [, $turned] = $this->adjusted();
        self::assertGreaterThan(1.5 * $run['varianceFactor'], $turned['varianceFactor']);
        $this->call('PUT', '/network/settings', ['deflections' => 'measured', 'xi' => 1000.0] + $settings, 422);
        $this->call('PUT', '/network/settings', ['deflections' => 'guess'] + $settings, 422);
        $this->call('PUT', '/network/settings', $settings, 200);
        self::assertSame($run['varianceFactor'], $this->adjusted()[1]['varianceFactor']);
    }
}
