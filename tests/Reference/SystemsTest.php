<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;

/** Finding a system, reading about it, and making one's own. */
final class SystemsTest extends ApiTestCase
{
    private const MARKS = 'point,easting [m],northing [m],ellipsoidal height '
        ."[m],held\nA,493612.345,6028050.5,221.25,enh\nB,493200,6028400,244.26,no\n";

    public function testWordsAndCodesFindSystemsAndThoseAroundThePointsComeFirst(): void
    {
        self::assertSame('EPSG:25830', $this->get('/reference/systems?q=utm+30')[0]['reference']);
        self::assertSame('EPSG:2193', $this->get('/reference/systems?q=2193')[0]['reference']);
        $this->accept('c.csv', self::MARKS);
        $hits = $this->get('/reference/systems?q=utm');
        self::assertSame('covers all points', $hits[0]['why']);
        self::assertStringContainsString('zone 30N', $hits[0]['name']);
        $deprecated = array_column($this->get('/reference/systems?q=2600'), null, 'reference')['EPSG:2600'];
        self::assertTrue($deprecated['deprecated']);
        $detail = $this->get('/reference/system?reference=EPSG:2600');
        self::assertSame([true, 'EPSG:3346'], [$detail['deprecated'], $detail['successor']], 'The registry names the successor.');
    }

    public function testHereNamesSystemsThatCoverThePointsBestFirstAndWhy(): void
    {
        self::assertStringContainsString('there is no "here"', $this->get('/reference/systems?q=here', 422)['detail']);
        $this->accept('c.csv', self::MARKS);
        $hits = $this->get('/reference/systems?q=here');
        self::assertGreaterThan(3, \count($hits));
        self::assertMatchesRegularExpression('/^[+-]\d+ ppm at the centre; (.* m from|the datum of) GNSS$/', $hits[0]['why']);
        // UTM 30 is 400 ppm short at its central meridian, which runs 100 km from here: common practice.
        $utm = array_column($hits, null, 'reference')['EPSG:25830'];
        self::assertStringContainsString('-399 ppm', $utm['why']);
    }

    public function testSystemsUsedLatelyComeFirst(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25833', 'heights' => 'ellipsoidal'], 200);
        $hits = $this->get('/reference/systems?q=');
        self::assertSame(['EPSG:25833', true], [$hits[0]['reference'], $hits[0]['recent']]);
    }

    public function testASystemSaysItsParts(): void
    {
        $d = $this->get('/reference/system?reference=EPSG:27700');
        self::assertSame('Transverse Mercator', $d['method']);
        self::assertStringContainsString('Airy 1830', $d['ellipsoid']);
        self::assertSame('metre', $d['unit']);
        self::assertContains(['name' => 'Scale factor at natural origin', 'value' => '0.9996012717'], $d['parameters']);
        self::assertContains(['name' => 'False northing', 'value' => '-100000 m'], $d['parameters']);
        // The best way from WGS 84 needs a grid that Debian does not ship: named, with the best way without it.
        self::assertStringContainsString('OSTN15', $d['gnss']);
        self::assertStringContainsString('PROJCRS["', $d['wkt']);
        self::assertStringContainsString('+proj=tmerc', $d['proj']);
        self::assertStringContainsString('not in the registry', $this->get('/reference/system?reference=EPSG:999999', 422)['detail']);
        self::assertStringContainsString('is a height system', $this->get('/reference/system?reference=EPSG:5773', 422)['detail']);
        self::assertStringContainsString(
            'needs eastings and northings',
            $this->call('PUT', '/reference', ['reference' => 'EPSG:4258', 'heights' => 'ellipsoidal'], 422)['detail'],
        );
    }

    public function testADefinitionIsTriedWhileItIsTyped(): void
    {
        // EPSG guidance note 7-2, 1.3.5.1 (transverse Mercator, British National Grid): 50°30'N 0°30'E is E 577274.99, N 69740.50.
        $body = [
            'name' => 'grid', 'geodetic' => 'EPSG:4277', 'method' => 9807, 'lat' => 50.5, 'lon' => 0.5,
            'parameters' => ['8801' => 49.0, '8802' => -2.0, '8805' => 0.9996012717, '8806' => 400000.0, '8807' => -100000.0],
        ];
        $tried = $this->post('/reference/custom/try', $body);
        self::assertEqualsWithDelta(577274.99, $tried['e'], 0.01);
        self::assertEqualsWithDelta(69740.50, $tried['n'], 0.01);
        self::assertEqualsWithDelta(50.5, $tried['backLat'], 1e-10);
        self::assertSame('', $tried['problem']);
        unset($body['parameters']['8806']);
        self::assertSame('False easting is missing', $this->post('/reference/custom/try', $body)['problem']);
        $this->post('/reference/custom', $body, 422);
        foreach ([
            '+proj=nothing +ellps=GRS80' => 'nothing', 'PROJCRS["x"' => 'ends before',
            'EPSG:4326' => 'eastings and northings', '+proj=utm +zone=99 +ellps=GRS80' => 'zone',
        ] as $text => $reason) {
            self::assertStringContainsString(
                $reason,
                $this->post('/reference/custom/try', ['name' => 'x', 'definition' => $text])['problem'],
                $text,
            );
        }
    }

    public function testAnOwnSystemIsKeptSharedUsedAndUndone(): void
    {
        $this->accept('c.csv', self::MARKS);
        $body = [
            'name' => 'Tarn grid',
            'definition' => '+proj=tmerc +lat_0=54 +lon_0=-3 +k=1.00003 +x_0=50000 +y_0=10000 +ellps=GRS80 +units=m',
        ];
        $id = $this->post('/reference/custom', $body, 201)['id'];
        self::assertStringStartsWith('PROJCRS["Tarn grid"', $this->download("/reference/custom/$id.wkt"));
        self::assertStringContainsString('+k_0=1.00003', str_replace('+k=', '+k_0=', $this->download("/reference/custom/$id.proj")));
        self::assertStringContainsString('already', $this->post('/reference/custom', $body, 422)['detail']);
        self::assertStringContainsString('names no datum, only an ellipsoid', $this->get("/reference/system?reference=custom:$id")['gnss']);
        // An ellipsoid alone says nothing about how to get there: the assumption is said.
        self::assertStringContainsString(
            'names no datum; it is taken to be on that of',
            implode('', $this->post('/reference/preview', ['reference' => "custom:$id", 'heights' => 'ellipsoidal'])['warnings']),
        );
        $wkt = str_replace('"Tarn grid"', '"Tarn grid 2"', (string) preg_replace(
            '/^PROJCRS\["[^"]*"/', 'PROJCRS["Tarn grid 2"',
            $this->get('/reference/system?reference=EPSG:25830')['wkt'],
        ));
        $id = $this->post('/reference/custom', ['name' => 'Tarn grid 2', 'definition' => $wkt], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => "custom:$id", 'heights' => 'ellipsoidal'], 200);
        self::assertSame('Tarn grid 2', $this->get('')['referenceName']);
        self::assertEqualsWithDelta(493612.345, $this->get('/points')['points'][0]['e'], 1e-6);
        $this->post('/ledger/'.$this->get('')['undo'].'/undo');
        self::assertSame('EPSG:25830', $this->get('')['reference']);
    }

    public function testALowDistortionDesignFitsTheHeight(): void
    {
        $this->accept('c.csv', self::MARKS);
        $d = $this->post('/reference/design', ['height' => 230.0]);
        // Common practice: the central scale is 1 + h/R.
        self::assertEqualsWithDelta(1.0 + 230.0 / 6380000.0, $d['scale'], 1e-6);
        self::assertLessThan(1.0, max(abs($d['min']), abs($d['max'])));
        self::assertLessThan(-400.0, $d['projectMin']);
        self::assertCount(81, $d['samples']);
        self::assertNull($d['id']);
        $kept = $this->post('/reference/design', ['height' => 230.0, 'name' => 'Tarn low'], 201);
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$kept['id'], 'heights' => 'ellipsoidal'], 200);
        $i = $this->get('/reference/inverse?from=A&to=B');
        $ppm = array_column($i['rows'], 'value', 'label')['grid less ground'];
        self::assertEqualsWithDelta(0.0, $ppm, 2.5);
        $this->post('/reference/design', ['height' => 99999.0], 422);
        $this->post('/reference/design', ['height' => 100.0, 'south' => 80.0, 'west' => 0.0, 'north' => 10.0, 'east' => 1.0], 422);
    }

    public function testADesignBeforeThereArePoints(): void
    {
        $site = ['height' => 230.0, 'south' => 54.3, 'west' => -3.2, 'north' => 54.5, 'east' => -3.0];
        self::assertStringContainsString(
            'give the corners of the site', $this->post('/reference/design', ['height' => 230.0], 422)['detail'],
        );
        $d = $this->post('/reference/design', $site);
        self::assertSame('European Terrestrial Reference System 1989 ensemble', $d['datum']);
        // Beyond what the project's projection can show, which is an answer, not a defect.
        self::assertStringContainsString(
            'cannot be computed',
            $this->post('/reference/design', ['west' => 170.0, 'east' => 170.1, 'south' => -0.05, 'north' => 0.05] + $site, 422)['title'],
        );
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        self::assertSame(
            'World Geodetic System 1984 ensemble',
            $this->post('/reference/design', ['geodetic' => 'EPSG:4326'] + $site)['datum'],
            'A plane project says on which datum.',
        );
        $this->post('/reference/design', ['geodetic' => 'EPSG:999999'] + $site, 422);
        // An own system that names only an ellipsoid is designed upon as it is, not on another datum.
        $id = $this->post('/reference/custom', ['name' => 'Old', 'definition' => '+proj=utm +zone=30 +ellps=intl +units=m'], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$id, 'heights' => 'ellipsoidal'], 200);
        self::assertStringContainsString('ELLIPSOID["intl",6378388,297', $this->post('/reference/design', $site)['wkt']);
    }

    public function testScaledToGround(): void
    {
        $this->accept('c.csv', self::MARKS);
        $made = $this->post('/reference/ground', ['point' => 'A', 'name' => 'Ground'], 201);
        // Grid 399.1 ppm short, height 221 m adds 34.6 ppm: common practice.
        self::assertEqualsWithDelta(1.000434, $made['factor'], 2e-6);
        $before = array_column($this->get('/reference/inverse?from=A&to=B')['rows'], 'value', 'label');
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$made['id'], 'heights' => 'ellipsoidal'], 200);
        $after = array_column($this->get('/reference/inverse?from=A&to=B')['rows'], 'value', 'label');
        self::assertEqualsWithDelta($before['ground distance'], $after['grid distance'], 0.003);
        self::assertEqualsWithDelta($before['ground distance'], $after['ground distance'], 1e-4);
        self::assertStringContainsString('no point ZZ', $this->post('/reference/ground', ['point' => 'ZZ', 'name' => 'G2'], 422)['detail']);
    }

    public function testNonsenseInAQueryIsAProblemNotADefect(): void
    {
        $this->accept('c.csv', self::MARKS);
        foreach ([
            'systems?q[]=x', 'systems?q=%25_%27%22%00', 'system?reference=%27;DROP', 'system?reference=custom:0',
            'system', 'undulation?lat[]=1&lon=2', 'undulation?lat=nan&lon=inf&geoid=installed:egm96_15.gtx',
            'undulation?lat=1&lon=1&geoid=../../x', 'inverse?from[]=A&to=B', 'inverse', 'grids/999.gtx',
            'localizations/999.wkt', 'custom/999.wkt',
        ] as $query) {
            $this->client->request('GET', "/api/projects/{$this->project}/reference/$query", [], [], ['HTTP_ACCEPT' => 'application/json']);
            self::assertLessThan(500, $this->client->getResponse()->getStatusCode(), $query);
        }
    }
}
