<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

/** Projects moved from one system to another and back: what was there is there again. */
final class DatumRoundTripTest extends ApiTestCase
{
    /** @return iterable<string, array{string, string, list<array{float, float, float}>}> */
    public static function pairs(): iterable
    {
        yield 'another zone' => ['EPSG:25830', 'EPSG:25831', [[493612.345, 6028050.5, 221.25], [700000.0, 4200000.0, 12.0]]];
        yield 'another projection' => ['EPSG:25832', 'EPSG:3035', [[500000.0, 5500000.0, 300.0]]];
        yield 'seven parameters' => ['EPSG:25830', 'EPSG:23030', [[450000.0, 4500000.0, 650.0]]];
        yield 'a grid of shifts' => ['EPSG:25832', 'EPSG:31467', [[500000.0, 5400000.0, 450.0], [610000.0, 5700000.0, 120.0]]];
        yield 'an oblique projection' => ['EPSG:25831', 'EPSG:28992', [[640000.0, 5790000.0, 3.0]]];
        yield 'the south' => ['EPSG:2193', 'EPSG:27200', [[1750000.0, 5900000.0, 30.0]]];
        yield 'feet' => ['EPSG:26910', 'EPSG:2225', [[543000.0, 4500000.0, 100.0]]];
    }

    /** @param list<array{float, float, float}> $marks */
    #[DataProvider('pairs')]
    public function testThereAndBack(string $from, string $to, array $marks): void
    {
        $this->call('PUT', '/reference', ['reference' => $from, 'heights' => 'ellipsoidal'], 200);
        $rows = "point,easting [m],northing [m],ellipsoidal height [m],held\n";
        foreach ($marks as $i => [$e, $n, $h]) {
            $rows .= "M$i,$e,$n,$h,enh\n";
        }
        $this->accept('c.csv', $rows);
        $way = $this->change($to);
        $there = $this->get('/points')['points'];
        self::assertGreaterThan(1.0, hypot($there[0]['e'] - $marks[0][0], $there[0]['n'] - $marks[0][1]));
        $this->change($from);
        foreach ($this->get('/points')['points'] as $i => $p) {
            // A grid of shifts is turned round by iteration, a transformation of three dimensions exactly.
            self::assertEqualsWithDelta($marks[$i][0], $p['e'], 2e-4, $way);
            self::assertEqualsWithDelta($marks[$i][1], $p['n'], 2e-4, $way);
            self::assertEqualsWithDelta($marks[$i][2], $p['h'], 1e-3, $way);
            self::assertEqualsWithDelta($p['e'], $p['givenE'], 1e-9, 'What was given moves with the mark.');
        }
    }

    /** As the interface does: the best way, or the first that can be used when its grid is missing. */
    private function change(string $reference): string
    {
        $request = ['reference' => $reference, 'heights' => 'ellipsoidal'];
        $preview = $this->post('/reference/preview', $request);
        if ('' !== $preview['problem']) {
            $usable = array_values(array_filter($preview['candidates'], static fn (array $c): bool => $c['usable'] && $c['covers']));
            self::assertNotSame([], $usable, $preview['problem']);
            $request['operation'] = $usable[0]['name'];
            $preview = $this->post('/reference/preview', $request);
        }
        self::assertSame('', $preview['problem']);
        $this->call('PUT', '/reference', $request, 200);
        $rows = array_column($preview['rows'], null, 'name');
        foreach ($this->get('/points')['points'] as $p) {
            self::assertEqualsWithDelta($rows[$p['name']]['newE'], $p['e'], 1e-9, 'What was shown is what was done.');
            self::assertEqualsWithDelta($rows[$p['name']]['newN'], $p['n'], 1e-9);
        }

        return $preview['operation'];
    }

    /** Parameters that move with time give another place at another epoch. */
    public function testTheEpochMatters(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'EPSG:9754', 'heights' => 'ellipsoidal'], 422);
        $id = $this->post('/reference/custom', ['name' => 'On a moving frame', 'definition' => $this->moving()], 201)['id'];
        $this->call('PUT', '/reference', ['reference' => 'custom:'.$id, 'heights' => 'ellipsoidal'], 200);
        $this->accept('c.csv', "point,easting [m],northing [m],ellipsoidal height [m],held\nA,334000,6250000,50,enh\n");
        $change = ['reference' => 'EPSG:7856', 'heights' => 'ellipsoidal'];
        $preview = $this->post('/reference/preview', $change);
        $timed = array_values(array_filter($preview['candidates'], static fn (array $c): bool => null !== $c['epoch'] && $c['usable']));
        self::assertNotSame([], $timed);
        $change['operation'] = $timed[0]['name'];
        $early = $this->post('/reference/preview', $change + ['epoch' => 2020.0])['rows'][0];
        $late = $this->post('/reference/preview', $change + ['epoch' => 2030.0])['rows'][0];
        // Australia moves about 7 cm a year north-north-east: common knowledge of the trade.
        self::assertEqualsWithDelta(0.6, hypot($late['newE'] - $early['newE'], $late['newN'] - $early['newN']), 0.15);
        self::assertLessThan($early['newN'], $late['newN'], 'Seen from the plate, the frame slides south.');
        self::assertStringContainsString(
            'moves with time and no epoch is given',
            implode('', $this->post('/reference/preview', $change)['warnings']),
        );
    }

    /** UTM 56 south over ITRF2014. */
    private function moving(): string
    {
        return 'PROJCRS["ITRF2014 / zone 56S",BASEGEOGCRS["ITRF2014",DATUM["International Terrestrial Reference Frame '
            .'2014",ELLIPSOID["GRS 1980",6378137,298.257222101]],ID["EPSG",9000]],CONVERSION["UTM zone '
                .'56S",METHOD["Transverse Mercator",ID["EPSG",9807]],PARAMETER["Latitude of natural '
                    .'origin",0],PARAMETER["Longitude of natural origin",153],PARAMETER["Scale factor at natural '
                        .'origin",0.9996],PARAMETER["False easting",500000],PARAMETER["False '
                            .'northing",10000000]],CS[Cartesian,2],AXIS["(E)",east],AXIS["(N)",north],LENGTHUNIT["metre",1]]';
    }
}
