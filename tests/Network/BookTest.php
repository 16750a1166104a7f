<?php

declare(strict_types=1);

namespace App\Tests\Network;

use App\Tests\ApiTestCase;

/** The total-station book: what was read beside what it is reduced to, and what of it the adjustment gets. */
final class BookTest extends ApiTestCase
{
    public function testTheDemoBookIsReducedAndGoesInAsMeans(): void
    {
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $single = $this->get('/network');
        $book = $this->get('/book');
        self::assertSame(
            ['KT02', 'KT03', 'KT05', 'KT10', 'KT11', 'KT08'],
            array_values(array_unique(array_column($book['setups'], 'station'))),
        );
        self::assertSame([], array_filter(array_column($book['setups'], 'fault')));
        $setup = $book['setups'][0];
        self::assertNull($setup['fault']);
        self::assertSame(2, $setup['rounds']);
        self::assertNull($setup['collimation'], 'One face only.');
        self::assertGreaterThan(0.0, $setup['spread']);
        self::assertLessThan(8.0 / 3600.0, $setup['spread']);
        self::assertSame(0, $setup['targets'][0]['direction'] <=> 0.0);
        self::assertCount(12, $setup['pointings']);

        foreach (['rounds', 'a-priori'] as $precision) {
            $this->call('PUT', '/book', ['setup' => $setup['key'], 'mode' => 'means', 'precision' => $precision], 200);
            self::assertNotSame([], $this->get('/network')['stale']);
            self::assertSame('done', $this->job('/network/adjust')['state']);
            $network = $this->get('/network');
            self::assertTrue($network['runs'][0]['converged']);
            self::assertLessThan($single['runs'][0]['observations'], $network['runs'][0]['observations']);
            self::assertSame(\count($single['rows']), \count($network['rows']), 'What was recorded stays on the page.');
            foreach ($network['stations'] as $k => $s) {
                self::assertEqualsWithDelta($single['stations'][$k]['e'], $s['e'], 0.01);
            }
        }
    }

    public function testWeatherAndPrismChangeDistancesAlone(): void
    {
        $this->acceptDemoFiles();
        $key = $this->get('/book')['setups'][0]['key'];
        $this->call(
            'PUT',
            '/book',
            ['setup' => $key, 'mode' => 'pointings', 'precision' => 'a-priori', 'temperature' => 12, 'pressure' => 985],
            422,
        );
        $this->call('PUT', '/book', ['setup' => $key, 'mode' => 'pointings', 'precision' => 'a-priori', 'temperature' => 12], 422);
        $this->call('PUT', '/book', ['setup' => 'nothing', 'mode' => 'pointings', 'precision' => 'a-priori'], 422);
        $this->call('PUT', '/book', [
            'setup' => $key, 'mode' => 'pointings', 'precision' => 'a-priori', 'temperature' => 12, 'pressure' => 985,
            'referenceRefractivity' => 285,
        ], 422);
        $weather = ['temperature' => 12.0, 'pressure' => 985.0, 'humidity' => 60.0, 'prism' => -0.0175, 'referenceRefractivity' => 285.0];
        $this->call('PUT', '/book', $weather + ['setup' => $key, 'mode' => 'pointings', 'precision' => 'a-priori'], 200);
        $setup = $this->get('/book')['setups'][0];
        self::assertEqualsWithDelta(12.0, $setup['temperature'], 0.0);
        self::assertNotSame(0.0, $setup['ppm']);
        // Undone with the ledger, the network is as before.
        $this->job('/network/adjust');
        $factor = $this->get('/network')['runs'][0]['varianceFactor'];
        $this->call('PUT', '/book', ['setup' => $key, 'mode' => 'pointings', 'precision' => 'a-priori'], 200);
        $this->job('/network/adjust');
        self::assertLessThan(
            $factor, $this->get('/network')['runs'][0]['varianceFactor'],
            'A prism constant that was not there makes it worse.',
        );
    }

    public function testFacesGiveCollimationAndIndex(): void
    {
        $rows = "station,round,hi [m],target,ht [m],face,direction [deg],zenith [deg],slope distance [m]\n";
        foreach ([['B', 10.0, 88.0], ['C', 80.0, 91.0], ['D', 200.0, 90.0]] as [$target, $d, $z]) {
            $c = 0.003 / sin(deg2rad($z));
            $rows .= \sprintf("A,1,1.5,%s,1.5,1,%.6f,%.6f,100.0\n", $target, $d + $c, $z + 0.002);
            $rows .= \sprintf("A,1,1.5,%s,1.5,2,%.6f,%.6f,100.0\n", $target, fmod($d - $c + 180.0, 360.0), 360.0 - $z + 0.002);
        }
        $preview = $this->bring('faces.csv', $rows);
        $this->post("/intake/{$preview['id']}/accept");
        $setup = $this->get('/book')['setups'][0];
        self::assertEqualsWithDelta(0.003, $setup['collimation'], 2e-6);
        self::assertEqualsWithDelta(0.002, $setup['index'], 2e-6);
        self::assertSame('both', $setup['targets'][0]['faces']);
        self::assertEqualsWithDelta(70.0, $setup['targets'][1]['direction'], 1e-5);
        self::assertEqualsWithDelta(88.0, $setup['targets'][0]['zenith'], 1e-5);
    }

    /** Weather of the file counts once the reference refractivity is known, and what is typed stands before it. */
    public function testRecordedWeatherIsTaken(): void
    {
        $this->accept('book.csv', implode("\n", [
            'station;round;instrument height [m];target;target height [m];direction [deg];zenith angle [deg];slope distance [m];'
                .'temperature;pressure;humidity',
            'A;1;1.5;B;1.5;0;90;1000;14,5;955;60', 'A;1;1.5;C;1.5;45;90;1000;15.5;957;60',
        ])."\n");
        $setup = $this->get('/book')['setups'][0];
        self::assertSame('15.0 °C, 956.0 hPa, 60 %', $setup['recordedWeather']);
        self::assertEqualsWithDelta(0.0, $setup['ppm'], 0.0);
        $choice = ['setup' => $setup['key'], 'mode' => 'pointings', 'precision' => 'a-priori', 'referenceRefractivity' => 285.0];
        $this->call('PUT', '/book', $choice, 200);
        // Resolution 3 of the IAG (1999) at 0.658 micrometres: 299.46 at standard air (0 degrees, 1013.25 hPa), times density.
        $square = 0.658 ** 2;
        $standard = 287.6155 + 4.88660 / $square + 0.06800 / $square ** 2;
        $vapour = 0.6 * 6.1078 * exp(17.269 * 15.0 / 252.3);
        $air = 273.15 / 1013.25 * $standard * 956.0 / 288.15 - 11.27 * $vapour / 288.15;
        self::assertEqualsWithDelta(285.0 - $air, $this->get('/book')['setups'][0]['ppm'], 1e-9);
        $this->call('PUT', '/book', $choice + ['temperature' => 0.0, 'pressure' => 1013.25, 'humidity' => 0.0], 200);
        self::assertEqualsWithDelta(285.0 - $standard, $this->get('/book')['setups'][0]['ppm'], 1e-9);
    }

    /** An angle from a backsight needs no orientation: with a distance it places its target. */
    public function testAnglesFromABacksightAreAdjusted(): void
    {
        $this->accept('control.csv', "point,easting [m],northing [m],height [m],held\nA,500000,6000000,10,enh\nB,500000,6000100,10,enh\n");
        $this->accept('angles.csv', implode("\n", [
            'station;backsight;target;direction [deg];horizontal distance [m]', 'A;B;C;90;50.000', 'B;A;C;333.434949;',
        ])."\n");
        self::assertSame('done', $this->job('/network/adjust')['state']);
        $network = $this->get('/network');
        self::assertSame(['angle', 'horizontal-distance', 'angle'], array_column($network['rows'], 'kind'));
        self::assertSame(['B', null, 'A'], array_column($network['rows'], 'back'));
        $c = array_column($network['stations'], null, 'name')['C'];
        // Due east of A; 49.98 on the grid of zone 30 at its meridian, whose scale is 0.9996.
        self::assertEqualsWithDelta(500000.0 + 50.0 * 0.9996, $c['e'], 0.02);
        self::assertEqualsWithDelta(6000000.0, $c['n'], 0.02);
        $refused = $this->bring('wrong.csv', "station;backsight;target;direction [deg]\nA;C;C;90\n");
        self::assertStringContainsString('an angle from "C" to "C" at "A" cannot be', $refused['findings'][0]['message']);
    }
}
