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
}
