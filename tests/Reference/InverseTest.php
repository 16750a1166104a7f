<?php

declare(strict_types=1);

namespace App\Tests\Reference;

use App\Tests\ApiTestCase;

final class InverseTest extends ApiTestCase
{
    /** The geodesic by GeodSolve -i on GRS 80 between the two points' geographic coordinates (cs2cs). */
    public function testEverythingBetweenTwoPointsWithItsSource(): void
    {
        $this->accept(
            'c.csv',
            "point,easting [m],northing [m],ellipsoidal height [m],held\nA,493612.345,6028050.5,221.25,enh\nB,503200,6034400,244.26,no\n",
        );
        $i = $this->get('/reference/inverse?from=A&to=B');
        $v = array_column($i['rows'], 'value', 'label');
        self::assertEqualsWithDelta(hypot(9587.655, 6349.5), $v['grid distance'], 1e-6);
        self::assertEqualsWithDelta(11504.134059, $v['ellipsoidal distance'], 1e-4);
        self::assertEqualsWithDelta(56.40515055518, $v['geodetic azimuth'], 1e-6);
        self::assertEqualsWithDelta(23.01, $v['height difference'], 1e-9);
        self::assertEqualsWithDelta($v['grid distance'] / $v['ground distance'], $v['combined factor'], 1e-9);
        self::assertEqualsWithDelta($v['line scale factor'] * $v['height factor'], $v['combined factor'], 1e-12);
        self::assertNotContains('', array_column($i['rows'], 'source'));
        $ends = array_column($i['ends'], null, 'label');
        self::assertEqualsWithDelta(54.400168046, $ends['latitude']['from'], 1e-8);
        self::assertEqualsWithDelta(-3.098393838, $ends['longitude']['from'], 1e-8);
        $factors = $this->get('/reference/factors');
        self::assertSame(['A', 'B'], array_column($factors, 'name'));
        self::assertEqualsWithDelta($ends['combined factor']['to'], $factors[1]['combined'], 1e-12);
        self::assertSame([$factors[1]], $this->get('/reference/factors?point=B'));
    }

    public function testAPlaneProjectHasOneDistance(): void
    {
        $this->call('PUT', '/reference', ['reference' => 'plane', 'heights' => 'local'], 200);
        $this->accept('p.csv', "point,easting [m],northing [m],height [m],code\nP1,0,0,3,A\nP2,3,4,3,A\n");
        self::assertSame(
            ['horizontal distance', 'slope distance', 'bearing', 'height difference'],
            array_column($this->get('/reference/inverse?from=P1&to=P2')['rows'], 'label'),
        );
        self::assertStringContainsString('the same place', $this->get('/reference/inverse?from=P1&to=P1', 422)['detail']);
        self::assertStringContainsString('no point "P9"', $this->get('/reference/inverse?from=P9&to=P1', 422)['detail']);
    }
}
