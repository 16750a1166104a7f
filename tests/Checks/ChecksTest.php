<?php

declare(strict_types=1);

namespace App\Tests\Checks;

use App\Tests\ApiTestCase;
use Demo\Slab;
use Smalot\PdfParser\Parser;

/** The Checks stage through the interface's own requests, on the slab of the demo project. */
final class ChecksTest extends ApiTestCase
{
    public function testASlabIsComparedWithItsDesign(): void
    {
        $slab = new Slab();
        $this->accept(Slab::DESIGN, $slab->design());
        $this->accept(Slab::SCAN, $slab->scan());
        $this->accept('others.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\nX1,493430,6028220,200.0,TREE\n");
        $view = $this->get('/checks');
        self::assertSame([], $view['deviations']);
        self::assertSame(['slab-b2.dxf', 120, ['SLAB-TOP' => 120]], [
            $view['designs'][0]['name'], $view['designs'][0]['faces'], $view['designs'][0]['layers'],
        ]);
        $request = [
            'name' => 'slab B2', 'reference' => 'design', 'design' => $view['designs'][0]['id'], 'along' => 'normal', 'codes' => ['SLAB'],
            'ignore' => 0.3, 'measuredOn' => '2031-05-04',
        ];
        $job = $this->job('/checks/deviations', $request);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $check = $this->get('/checks')['deviations'][0];
        self::assertSame([1, 594, 3, 0, []], [$check['number'], $check['measured'], $check['beyond'], $check['outside'], $check['stale']]);
        self::assertSame('120 faces of slab-b2.dxf', $check['against']);
        self::assertEqualsWithDelta(Slab::CROWN, $check['steepest'], 1e-9);
        $points = $this->get('/checks/deviations/1/points');
        asort($points['d']);
        $lowest = (int) array_key_first($points['d']);
        self::assertGreaterThan(Slab::WEST + Slab::WIDTH - 3.0, $points['e'][$lowest]);
        self::assertLessThan(Slab::SOUTH + 3.0, $points['n'][$lowest]);
        // A point of the crowned slab lies nearer along the normal than in height, by the cosine.
        $byHeight = Slab::height($points['e'][5]);
        self::assertEqualsWithDelta(($points['h'][5] - $byHeight) / sqrt(1.0 + Slab::CROWN ** 2), $points['d'][5], 2e-6);
        // Another point of another code makes nothing stale; one of the slab does, and comparing anew keeps the number.
        $this->accept('more.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\nX2,493431,6028220,200.0,TREE\n");
        self::assertSame([], $this->get('/checks')['deviations'][0]['stale']);
        $this->accept('corner.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\nSL-999,493443.5,6028214.2,228.430,SLAB\n");
        self::assertNotSame([], $this->get('/checks')['deviations'][0]['stale']);
        $this->job('/checks/deviations', ['number' => 1] + $request);
        $again = $this->get('/checks')['deviations'];
        self::assertSame([1, 2, 595, []], [\count($again), $again[0]['run'], $again[0]['measured'], $again[0]['stale']]);
        $this->undoLast();
        self::assertSame([1, 594], [$this->get('/checks')['deviations'][0]['run'], $this->get('/checks')['deviations'][0]['measured']]);
    }

    public function testPlanesElevationsAndSurfacesServeToo(): void
    {
        $rows = '';
        foreach ([[0, 0, 10.0], [9, 0, 10.09], [9, 9, 10.18], [0, 9, 10.09], [4, 5, 10.112]] as $i => [$e, $n, $h]) {
            $rows .= \sprintf("F%d,%d,%d,%.3f,FLOOR\n", $i, 493000 + $e, 6028000 + $n, $h);
        }
        $this->accept('floor.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\n$rows");
        $usual = ['along' => 'vertical', 'codes' => ['FLOOR']];
        $this->job('/checks/deviations', ['name' => 'floor', 'reference' => 'plane'] + $usual);
        $this->job('/checks/deviations', ['name' => 'level', 'reference' => 'elevation', 'elevation' => 10.1] + $usual);
        [$plane, $level] = $this->get('/checks')['deviations'];
        self::assertEqualsWithDelta(hypot(0.01, 0.01), $plane['steepest'], 2e-3);
        self::assertEqualsWithDelta(0.0, $plane['mean'], 1e-6);
        self::assertNotNull($plane['planeSd']);
        self::assertSame('the elevation 10.100 m', $level['against']);
        self::assertEqualsWithDelta(0.08, $level['max'], 1e-9);
        $surface = $this->job('/terrain/surfaces', ['name' => 'Floor', 'roles' => ['surveyed'], 'exclude' => ['F4'], 'interval' => 1.0]);
        self::assertSame('done', $surface['state']);
        $this->job('/checks/deviations', ['name' => 'one', 'reference' => 'surface', 'surface' => 1, 'pattern' => 'F4'] + $usual);
        $one = $this->get('/checks')['deviations'][2];
        self::assertSame([1, null], [$one['used'], $one['sd']]);
        self::assertEqualsWithDelta(10.112 - 10.09, $one['mean'], 1e-9);
    }

    public function testWhatIsMissingIsSaid(): void
    {
        $this->accept('one.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\nA,493000,6028000,10,T\n");
        $refused = fn (array $request): string => (string) ($this->job('/checks/deviations', $request)['error'] ?? '');
        $usual = ['name' => 'x', 'along' => 'normal'];
        self::assertStringContainsString('no point with a height', $refused($usual + ['reference' => 'plane', 'codes' => ['NONE']]));
        self::assertStringContainsString('a plane needs three points', $refused($usual + ['reference' => 'plane']));
        self::assertStringContainsString('no such design file', $refused($usual + ['reference' => 'design', 'design' => 99]));
        self::assertStringContainsString('not computed', $refused($usual + ['reference' => 'surface', 'surface' => 99]));
        $this->post('/checks/deviations', $usual + ['reference' => 'moon'], 422);
        $this->post('/checks/deviations', $usual + ['reference' => 'plane', 'number' => 7], 404);
        $empty = (string) json_encode($this->bring('solid.dxf', "0\nSECTION\n2\nENTITIES\n0\n3DSOLID\n8\n0\n0\nENDSEC\n0\nEOF\n"));
        self::assertStringContainsString('solids', $empty);
        self::assertStringContainsString('write them as a mesh', $empty);
    }

    /** Two days of one slab, the second sunk by 3 mm at one side: kept both, compared place by place, reported in bands of one's own. */
    public function testEpochsAndTheReport(): void
    {
        foreach (['A' => 0.0, 'B' => -0.003] as $day => $sunk) {
            $rows = '';
            for ($i = 0; $i < 100; ++$i) {
                [$e, $n] = [$i % 10, intdiv($i, 10)];
                $h = 10.0 + ($e > 4 ? $sunk : 0.0);
                $rows .= \sprintf("%s%d,%.3f,%.3f,%.4f,%s\n", $day, $i, 493000 + $e, 6028000.1 + $n, $h, "DAY$day");
            }
            $this->accept("day-$day.csv", "point,easting [m],northing [m],ellipsoidal height [m],code\n$rows");
            $this->job('/checks/deviations', [
                'name' => "slab $day", 'reference' => 'elevation', 'elevation' => 10.0, 'along' => 'vertical', 'codes' => ["DAY$day"],
            ]);
        }
        $change = $this->get('/checks/deviations/2/since/1');
        self::assertEqualsWithDelta(1.0, $change['within'], 0.15);
        self::assertSame([50, 50], [
            \count(array_keys($change['d'], -0.003, true)),
            \count(array_filter($change['d'], static fn (?float $d): bool => null !== $d && abs($d) < 1e-9)),
        ]);
        $this->get('/checks/deviations/2/since/9', 404);
        $bands = ['limits' => [-0.002, 0.002], 'colours' => ['#16307f', '#e9e3cf', '#7c1d12']];
        self::assertStringContainsString('bands go upwards', $this->call(
            'PUT', '/checks/deviations/2/bands', ['limits' => [0.002, -0.002]] + $bands, 422,
        )['detail']);
        $this->call('PUT', '/checks/deviations/2/bands', $bands, 200);
        self::assertSame($bands['limits'], $this->get('/checks')['deviations'][1]['limits']);
        self::assertSame('done', $this->job('/handover', ['kind' => 'deviation-pdf', 'surfaces' => [2]])['state']);
        [$file] = $this->get('/handover')['exports'];
        self::assertTrue($file['holds']);
        $text = (new Parser())->parseContent($this->download("/handover/$file[id]/file"))->getText();
        self::assertStringContainsString('50.0 % of slab B lies within ±2.0 mm', $text);
        self::assertStringContainsString('100 of 100 points compared', $text);
        $this->call('PUT', '/checks/deviations/2/bands', ['limits' => [-0.004, 0.004]] + $bands, 200);
        self::assertSame(['export:deviation-pdf:2' => ['its bands changed']], $this->stale());
    }

    /** A drawing in feet is asked about, whether it lies elsewhere or about its own origin; said to be in feet it is what it is. */
    public function testADesignInFeetIsAskedAbout(): void
    {
        $slab = new Slab();
        $inFeet = (string) preg_replace_callback(
            '/^(1[0-3]|2[0-3]|3[0-3])\n([\d.]+)$/m', static fn (array $m): string => $m[1]."\n".\sprintf('%.6F', (float) $m[2] / 0.3048),
            $slab->design(),
        );
        $this->accept('feet.dxf', $inFeet);
        $this->accept(Slab::SCAN, $slab->scan());
        $request = [
            'name' => 'slab', 'reference' => 'design', 'design' => $this->get('/checks')['designs'][0]['id'], 'along' => 'normal',
            'codes' => ['SLAB'], 'ignore' => 0.3,
        ];
        $asked = $this->job('/checks/deviations', $request);
        self::assertStringContainsString('as if it were drawn in feet; say what it is drawn in', (string) $asked['error']);
        self::assertSame('done', $this->job('/checks/deviations', ['unit' => 'ft'] + $request)['state']);
        [$check] = $this->get('/checks')['deviations'];
        self::assertSame(['ft', 591, 3, 0], [$check['unit'], $check['used'], $check['beyond'], $check['outside']]);
        // Said to be in metres it lies elsewhere: nothing can be compared, and nothing is asked again.
        self::assertSame('done', $this->job('/checks/deviations', ['unit' => 'm', 'name' => 'in metres'] + $request)['state']);
        self::assertSame(594, $this->get('/checks')['deviations'][1]['outside']);
        $this->post('/checks/deviations', ['unit' => 'cubits'] + $request, 422);
    }
}
