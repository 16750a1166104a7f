<?php

declare(strict_types=1);

namespace App\Tests\Intake;

use App\Tests\ApiTestCase;

/** What a file's coordinates and heights mean is asked where it cannot be known. */
final class MeaningTest extends ApiTestCase
{
    private const HEADING = "point,easting [m],northing [m],height [m],code\n";

    public function testHeightsAreAskedUnlessTheHeadingSaysWhichTheyAre(): void
    {
        $silent = $this->bring('a.csv', self::HEADING."A,493612.345,6028050.5,221.25,X\n");
        self::assertSame(['heights'], array_column($silent['meaning']['asks'], 'key'));
        self::assertStringContainsString(
            'answer first: Are these heights ellipsoidal',
            $this->post("/intake/{$silent['id']}/accept", [], 422)['detail'],
        );
        foreach (['ellipsoidal height [m]' => 'ellipsoidal', 'orthometric height (m)' => 'geoid'] as $heading => $said) {
            $spoken = $this->bring('b.csv', "point,easting [m],northing [m],$heading\nB,493612.345,6028050.5,221.25\n");
            self::assertSame($said, $spoken['meaning']['said']);
            self::assertSame('geoid' === $said ? ['geoid'] : [], array_column($spoken['meaning']['asks'], 'key'));
        }
        $undulation = $this->bring('d.csv', "point,easting [m],northing [m],geoid height [m],held\nD,493612.345,6028050.5,52.9,en\n");
        self::assertNull(array_column($undulation['fields'], 'column', 'key')['h'], 'A geoid height is N, not the height of the point.');
        $plan = $this->bring('c.csv', "point,easting [m],northing [m],held\nC,493612.345,6028050.5,en\n");
        self::assertSame([], $plan['meaning']['asks'], 'No heights, no question.');
    }

    public function testGeoidHeightsAreBroughtToTheProjects(): void
    {
        $file = $this->bring('a.csv', self::HEADING."A,493612.345,6028050.5,168.33,X\n");
        $asked = $this->call('PUT', "/intake/{$file['id']}/meaning", ['heights' => 'geoid'], 200);
        self::assertSame(['geoid'], array_column($asked['meaning']['asks'], 'key'));
        $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'], 200);
        self::assertTrue($answered['acceptable']);
        $this->post("/intake/{$file['id']}/accept");
        // N is 52.92 m there (cs2cs, EPSG:5773).
        self::assertEqualsWithDelta(168.33 + 52.92, $this->get('/points')['points'][0]['h'], 0.02);
    }

    public function testAnotherSystemIsBroughtOver(): void
    {
        $file = $this->bring('a.csv', self::HEADING."A,882909.05712,6044104.547,221.25,X\n");
        $answered = $this->call(
            'PUT', "/intake/{$file['id']}/meaning",
            ['frame' => 'EPSG:25829', 'heights' => 'ellipsoidal', 'far' => true], 200,
        );
        self::assertTrue($answered['acceptable'], (string) json_encode($answered['meaning']));
        $this->post("/intake/{$file['id']}/accept");
        self::assertEqualsWithDelta(493612.345, $this->get('/points')['points'][0]['e'], 1e-4);
        self::assertStringContainsString('brought over from EPSG:25829', $this->get('/ledger')['entries'][0]['title']);
    }

    public function testExchangedColumnsAreFoundAndAsked(): void
    {
        $file = $this->bring(
            'a.csv',
            "point,easting [m],northing [m],ellipsoidal height [m]\nA,6028050.5,493612.345,221.25\nB,6028400,493200,244\n",
        );
        self::assertSame(['swap'], array_column($file['meaning']['asks'], 'key'));
        self::assertStringContainsString('Exchange them?', $file['meaning']['asks'][0]['text']);
        $this->post("/intake/{$file['id']}/accept", [], 422);
        $no = $this->call('PUT', "/intake/{$file['id']}/meaning", ['swap' => false], 200);
        self::assertSame(['far'], array_column($no['meaning']['asks'], 'key'), 'Kept as they are, they lie far away.');
        $yes = $this->call('PUT', "/intake/{$file['id']}/meaning", ['swap' => true], 200);
        self::assertTrue($yes['acceptable']);
        $this->post("/intake/{$file['id']}/accept");
        self::assertSame(493612.345, $this->get('/points')['points'][0]['e']);
    }

    public function testPointsOnAnotherContinentAreQuestioned(): void
    {
        $this->accept('c.csv', "point,easting [m],northing [m],ellipsoidal height [m],held\nA,493612.345,6028050.5,221.25,enh\n");
        $far = $this->bring('b.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nB,500000,1000,221.25\n");
        self::assertSame(['far'], array_column($far['meaning']['asks'], 'key'));
        self::assertMatchesRegularExpression(
            '/B would lie at 0\.01° north, 3\.00° west, 6 0\d\d km from the project/',
            $far['meaning']['asks'][0]['text'],
        );
    }

    public function testUnknownFramesAreRefused(): void
    {
        $file = $this->bring('a.csv', self::HEADING."A,493612.345,6028050.5,221.25,X\n");
        $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => 'moon'], 422);
        $this->call('PUT', "/intake/{$file['id']}/meaning", ['heights' => 'wet'], 422);
        foreach ([
            'EPSG:999999' => 'not in the registry', 'EPSG:4326' => 'eastings and northings',
            'localization:9' => 'no such localization', 'custom:9' => 'no such system',
        ] as $frame => $reason) {
            $answered = $this->call('PUT', "/intake/{$file['id']}/meaning", ['frame' => $frame, 'heights' => 'ellipsoidal'], 200);
            self::assertFalse($answered['acceptable']);
            self::assertStringContainsString($reason, $answered['findings'][0]['message']);
        }
    }
}
