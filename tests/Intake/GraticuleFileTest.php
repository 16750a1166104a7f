<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/**
 * Files of latitudes and longitudes. Places by cs2cs of PROJ 9.1.1: 493612.345 6028050.5 of EPSG:25830 is
 * 54.4001680463 -3.0983938379 of EPSG:4258.
 */
final class GraticuleFileTest extends ApiTestCase
{
    private const CONTROL = "point,easting [m],northing [m],ellipsoidal height [m],held\nK,493600,6028000,221.25,enh\n";
    private const HEADING = "point,latitude [deg],longitude [deg],ellipsoidal height [m],code\n";

    public function testPlacesOnTheDatumOfTheProjectAreProjected(): void
    {
        $file = $this->bring(
            'a.csv',
            self::HEADING."A,54.4001680463,-3.0983938379,221.25,X\nB,54 24 00.60497 N,3 05 54.21782 W,221.25,X\n",
        );
        self::assertTrue($file['meaning']['geographic']);
        self::assertSame(1, $file['leftOut']);
        self::assertSame('latitude: "54 24 00.60497" is not a number', $file['findings'][0]['message']);
        self::assertSame(['lat', 'lon'], array_values(array_intersect(
            array_column(array_filter($file['fields'], static fn (array $f): bool => $f['required']), 'key'),
            ['e', 'n', 'lat', 'lon'],
        )));
        $this->post("/intake/{$file['id']}/accept", ['leaveOutBad' => true]);
        $point = $this->get('/points')['points'][0];
        self::assertEqualsWithDelta([493612.345, 6028050.5], [$point['e'], $point['n']], 2e-5);
        self::assertSame(221.25, $point['h']);
    }

    public function testDegreesMinutesAndSecondsShowByTheirForm(): void
    {
        $this->accept('a.csv', "point,lat,long,ellipsoidal height [m],held\nA,54°24'00.60497\"N,3°05'54.21782\"W,221.25,enh\n");
        $point = $this->get('/points')['points'][0];
        self::assertEqualsWithDelta([493612.345, 6028050.5], [$point['e'], $point['n']], 5e-4);
    }

    public function testAnotherDatumIsBroughtOver(): void
    {
        // cct: +proj=cart +ellps=intl, +proj=helmert +x=-87 +y=-98 +z=-121, +inv +proj=cart +ellps=GRS80, +proj=utm
        // +zone=30, of 3.1 W 54.4 N 100
        $id = $this->post(
            '/reference/custom',
            ['name' => 'Old datum', 'definition' => '+proj=utm +zone=30 +ellps=intl +pm=-3.5 +towgs84=-87,-98,-121 +units=m'],
            201,
        )['id'];
        $file = $this->bring('a.csv', self::HEADING."A,54.4,0.4,100,X\n");
        $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'custom:'.$id, 'sign' => 'none'], 200);
        self::assertTrue($answered['acceptable'], (string) json_encode([$answered['meaning'], $answered['findings']]));
        $this->post("/intake/{$file['id']}/accept");
        $point = $this->get('/points')['points'][0];
        self::assertEqualsWithDelta([493405.4009, 6027941.4359, 144.7930], [$point['e'], $point['n'], $point['h']], 1e-3);
    }

    public function testAWorldSystemIsADatumToo(): void
    {
        $file = $this->bring('a.csv', self::HEADING."A,54.4001680463,-3.0983938379,221.25,X\n");
        $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:4326'], 200);
        self::assertTrue($answered['acceptable']);
        foreach (['local', 'localization:4'] as $frame) {
            $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => $frame], 200);
            self::assertFalse($answered['acceptable']);
            self::assertStringContainsString('say on which datum', $answered['findings'][0]['message']);
        }
    }

    public function testTheFirstFileOfAnEmptyProjectComesFromAnotherDatum(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:27700', 'heights' => 'ellipsoidal'], 200);
        $file = $this->bring('a.csv', self::HEADING."A,54.4,-3.1,100,X\n");
        $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:4326'], 200);
        self::assertStringContainsString(
            'needs the grid OSTN15_NTv2_OSGBtoETRS.gsb, which is not installed', $answered['findings'][0]['message'],
        );
        self::assertFalse($answered['acceptable']);
        $usable = array_values(array_filter($answered['meaning']['ways'], static fn (array $w): bool => $w['usable'] && $w['covers']));
        self::assertSame('Inverse of OSGB36 to WGS 84 (6)', $usable[0]['name']);
        $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'EPSG:4326', 'operation' => $usable[0]['name']], 200);
        self::assertTrue($answered['acceptable']);
        // cs2cs EPSG:4326 EPSG:27700: OSGB36 to WGS 84 (6), two metres good.
        self::assertEqualsWithDelta([328685.614, 501061.185], [$answered['points'][0]['e'], $answered['points'][0]['n']], 2e-3);
    }

    public function testALostMinusSignIsAsked(): void
    {
        $this->accept('c.csv', self::CONTROL);
        $file = $this->bring('a.csv', self::HEADING."A,54.4001680463,3.0983938379,221.25,X\n");
        self::assertSame(['sign'], array_column($file['meaning']['asks'], 'key'));
        self::assertSame('longitude', $file['meaning']['asks'][0]['offer']);
        self::assertStringContainsString(
            'answer first: As written these points lie far',
            $this->post("/intake/{$file['id']}/accept", [], 422)['detail'],
        );
        $kept = $this->call('PUT', "/intake/{$file['id']}/meaning", ['sign' => 'none'], 200);
        self::assertStringContainsString('A would lie at 54.40° north, 3.10° east', $kept['meaning']['asks'][0]['text']);
        $this->call('PUT', "/intake/{$file['id']}/meaning", ['sign' => 'upside down'], 422);
        $changed = $this->call('PUT', "/intake/{$file['id']}/meaning", ['sign' => 'longitude'], 200);
        self::assertTrue($changed['acceptable']);
        $this->post("/intake/{$file['id']}/accept");
        self::assertEqualsWithDelta(493612.345, $this->get('/points')['points'][1]['e'], 2e-5);
    }

    public function testTheOtherHalfOfTheEarthIsAskedToo(): void
    {
        $this->accept('c.csv', self::CONTROL);
        foreach (['latitude' => '-54.4,-3.1', 'both' => '-54.4,3.1'] as $offer => $place) {
            self::assertSame($offer, $this->bring('a.csv', self::HEADING."A,$place,221.25,X\n")['meaning']['asks'][0]['offer']);
        }
        $swapped = $this->bring('b.csv', self::HEADING."A,-3.0983938379,54.4001680463,221.25,X\n");
        self::assertSame(['swap'], array_column($swapped['meaning']['asks'], 'key'));
        $answered = $this->call('PUT', "/intake/{$swapped['id']}/meaning", ['swap' => true], 200);
        self::assertTrue($answered['acceptable']);
        self::assertEqualsWithDelta(493612.345, array_column($answered['points'], 'e', 'name')['A'], 2e-5);
    }

    public function testAPlaceIsSaidOneWay(): void
    {
        $both = $this->bring(
            'a.csv',
            "point,easting [m],northing [m],latitude,longitude,ellipsoidal height [m]\nA,493612.345,6028050.5,54.4,-3.1,221.25\n",
        );
        self::assertFalse($both['meaning']['geographic'], 'Eastings and northings need no more questions.');
        $columns = ['name' => 0, 'e' => 1, 'n' => 2, 'lat' => 3, 'lon' => 4, 'h' => 5];
        $refused = $this->call(
            'PUT', "/intake/{$both['id']}/mapping",
            ['kind' => 'points', 'columns' => $columns, 'units' => ['h' => 'm']], 422,
        );
        self::assertStringContainsString('choose columns for one of the two', (string) json_encode($refused));
        unset($columns['e'], $columns['n']);
        $changed = $this->call(
            'PUT', "/intake/{$both['id']}/mapping",
            ['kind' => 'points', 'columns' => $columns, 'units' => ['h' => 'm']], 200,
        );
        self::assertSame([['lat', 'lon']], array_column($changed['questions'], 'fields'));
    }

    public function testAPlaneProjectTakesNone(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $file = $this->bring('a.csv', self::HEADING."A,54.4,-3.1,221.25,X\n");
        self::assertFalse($file['acceptable']);
        self::assertStringContainsString('a plane project takes plane coordinates only', $file['findings'][0]['message']);
    }
}
