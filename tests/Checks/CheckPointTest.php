<?php

declare(strict_types=1);

namespace App\Tests\Checks;

use App\Tests\ApiTestCase;
use Smalot\PdfParser\Parser;

/** Check points: known, held out of everything, compared with surface, point and cloud. The ground is a plane, so all is known. */
final class CheckPointTest extends ApiTestCase
{
    private const HEAD = "point,easting [m],northing [m],ellipsoidal height [m],code\n";

    private static function height(float $e, float $n): float
    {
        return 200.0 + 0.02 * ($e - 493000.0) - 0.01 * ($n - 6028000.0);
    }

    /** Measured ground, every 2 m, without an error. */
    private function ground(): void
    {
        $rows = '';
        for ($i = 0; $i < 441; ++$i) {
            [$e, $n] = [493000.0 + 2.0 * ($i % 21), 6028000.0 + 2.0 * intdiv($i, 21)];
            $rows .= \sprintf("G%d,%.3f,%.3f,%.5f,GROUND\n", $i, $e, $n, self::height($e, $n));
        }
        $this->accept('ground.csv', self::HEAD.$rows);
    }

    /** Four marks on the ground, known 10 mm too high, 10 mm too low, exactly, and beside it. */
    private function marks(): int
    {
        $rows = '';
        foreach ([[5.0, 5.0, 0.010], [11.0, 17.0, -0.010], [20.0, 20.0, 0.0], [90.0, 5.0, 0.0]] as $i => [$e, $n, $off]) {
            $rows .= \sprintf("C%d,%.3f,%.3f,%.5f\n", $i + 1, 493000 + $e, 6028000 + $n, self::height(493000 + $e, 6028000 + $n) + $off);
        }
        $file = $this->bring('marks.csv', "point,easting [m],northing [m],ellipsoidal height [m]\n$rows");
        $this->call('PUT', "/intake/{$file['id']}/mapping", ['kind' => 'control'], 200);
        self::assertTrue($this->call('PUT', "/intake/{$file['id']}/meaning", ['control' => 'check'], 200)['acceptable']);
        $this->post("/intake/{$file['id']}/accept");

        return $file['id'];
    }

    public function testAgainstASurface(): void
    {
        $this->ground();
        self::assertSame(0, $this->get('/checks')['checkPoints']);
        $none = $this->job('/checks/points', ['name' => 'x', 'against' => 'point']);
        self::assertStringContainsString('no such check point', (string) $none['error']);
        $this->marks();
        self::assertSame(4, $this->get('/checks')['checkPoints']);
        // All roles that a surface offers: check points are none of them.
        $surface = $this->job('/terrain/surfaces', [
            'name' => 'ground', 'roles' => ['control', 'adjusted', 'surveyed'], 'codes' => [], 'interval' => 0.5,
        ]);
        self::assertSame('done', $surface['state'], (string) ($surface['error'] ?? ''));
        $number = $this->get('/checks')['surfaces'][0]['id'];
        $job = $this->job('/checks/points', ['name' => 'ground', 'against' => 'surface', 'surface' => $number]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        [$check] = $this->get('/checks')['checks'];
        self::assertSame([4, 3, [], 'h'], [$check['count'], $check['used'], $check['stale'], $check['axes'][0]['axis']]);
        self::assertNull($check['horizontal']);
        self::assertEqualsWithDelta(1.96 * sqrt(0.0002 / 3.0), $check['vertical'], 1e-6);
        $points = $this->get('/checks/points/1')['points'];
        self::assertSame(['C1', -0.01], [$points[0]['name'], round($points[0]['dh'], 5)], 'computed minus known');
        self::assertNull($points[3]['dh'], 'beside the surface nothing is carried on');
        self::assertSame('done', $this->job('/handover', ['kind' => 'check-pdf', 'surfaces' => [1]])['state']);
        [$file] = $this->get('/handover')['exports'];
        self::assertTrue($file['holds']);
        $text = (new Parser())->parseContent($this->download("/handover/$file[id]/file"))->getText();
        self::assertStringContainsString('16.0 mm in height at 95 %', $text);
        self::assertStringContainsString('asks for 20 points or more', $text);
        // A deviation of all points does not take the check points for measured.
        $this->job('/checks/deviations', ['name' => 'all', 'reference' => 'surface', 'surface' => $number, 'along' => 'vertical']);
        self::assertSame(441, $this->get('/checks')['deviations'][0]['measured']);
    }

    /** The mark's own measured place comes before a neighbour; a check point made control is none any more, and the check is stale. */
    public function testAgainstWhatWasMeasured(): void
    {
        $this->marks();
        $place = static fn (float $e, float $n, float $h): string => \sprintf('%.3f,%.3f,%.5f', 493000 + $e, 6028000 + $n, $h);
        $this->accept('rover.csv', self::HEAD.'C1,'.$place(5.02, 4.985, self::height(493005, 6028005) + 0.015).",X\n"
            .'R7,'.$place(11.02, 17.015, 200.0).",X\n".'R8,'.$place(21.0, 20.0, 200.0).",X\n");
        $job = $this->job('/checks/points', ['name' => 'rover', 'against' => 'point', 'within' => 0.05]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $points = array_column($this->get('/checks/points/1')['points'], null, 'name');
        self::assertSame(['C1', 0.02, -0.015, 0.005], [
            $points['C1']['by'], round($points['C1']['de'], 5), round($points['C1']['dn'], 5), round($points['C1']['dh'], 5),
        ]);
        self::assertSame(['R7', 0.02, 0.015], [$points['C2']['by'], round($points['C2']['de'], 5), round($points['C2']['dn'], 5)]);
        self::assertSame(['', null], [$points['C3']['by'], $points['C3']['de']]);
        [$check] = $this->get('/checks')['checks'];
        self::assertSame([2, 20], [$check['used'], $check['enough']]);
        self::assertEqualsWithDelta(2.4477 * 0.5 * 0.035, (float) $check['horizontal'], 1e-5);
        $role = fn (string $name): string => array_column($this->get('/points')['points'], 'role', 'name')[$name];
        self::assertSame('check', $role('C1'));
        $this->post('/control/hold', ['points' => ['C2']]);
        self::assertSame(['control', ['its check points changed', 'coordinates of points changed']], [
            $role('C2'), $this->get('/checks')['checks'][0]['stale'],
        ]);
        $this->post('/control/check', ['points' => ['C2']]);
        self::assertSame('check', $role('C2'));
        self::assertStringContainsString('there is no point', $this->post('/control/check', ['points' => ['nobody']], 422)['detail']);
        $this->post('/checks/points', ['name' => 'x', 'against' => 'moon'], 422);
        $this->post('/checks/points', ['name' => 'x', 'against' => 'point', 'number' => 9], 404);
    }

    /** A cloud comes in as it is, is compared with and compared, and so is a surface. */
    public function testCloudsAndMeasuredSurfaces(): void
    {
        $this->ground();
        $this->marks();
        $lines = '';
        for ($i = 0; $i < 1600; ++$i) {
            [$e, $n] = [493000.25 + 0.75 * ($i % 40), 6028000.25 + 0.75 * intdiv($i, 40)];
            $lines .= \sprintf("%.3f %.3f %.4f %d\n", $e, $n, self::height($e, $n) + 0.05, $i % 255);
        }
        $file = $this->bring('scan.xyz', $lines);
        self::assertSame(['cloud', ['points' => 1600], true], [$file['kind'], $file['counts'], $file['acceptable']]);
        $this->post("/intake/{$file['id']}/accept");
        [$cloud] = $this->get('/checks')['clouds'];
        self::assertSame(['scan.xyz', 1600], [$cloud['name'], $cloud['points']]);
        $this->job('/checks/points', ['name' => 'scan', 'against' => 'cloud', 'cloud' => $cloud['id']]);
        $points = $this->get('/checks/points/1')['points'];
        self::assertEqualsWithDelta(0.04, $points[0]['dh'], 2e-4);
        self::assertEqualsWithDelta(0.06, $points[1]['dh'], 2e-4);
        self::assertNull($points[3]['dh']);
        // A cloud that was made of it says the same; made otherwise, the check is stale.
        $this->job('/clouds', ['name' => 'thin', 'files' => [$cloud['id']], 'thin' => 1.0]);
        $this->job('/checks/points', ['name' => 'made', 'against' => 'made', 'made' => 'cloud:1']);
        $points = $this->get('/checks/points/2')['points'];
        self::assertEqualsWithDelta([0.04, 0.06], [$points[0]['dh'], $points[1]['dh']], 2e-4);
        $this->job('/clouds', ['name' => 'thin', 'number' => 1, 'files' => [$cloud['id']], 'thin' => 2.0]);
        self::assertArrayHasKey('check:2', $this->stale());
        // The cloud is the reference of points, and is itself compared with the surface of the points.
        $this->job('/terrain/surfaces', ['name' => 'ground', 'roles' => ['surveyed'], 'codes' => [], 'interval' => 0.5]);
        $surface = $this->get('/checks')['surfaces'][0]['id'];
        $usual = ['along' => 'vertical'];
        foreach ([
            ['name' => 'points', 'reference' => 'cloud', 'cloud' => $cloud['id'], 'radius' => 2.0],
            ['name' => 'cloud', 'reference' => 'surface', 'surface' => $surface, 'measured' => 'cloud', 'measuredCloud' => $cloud['id']],
            ['name' => 'surface', 'reference' => 'elevation', 'elevation' => 200.0, 'measured' => 'surface', 'measuredSurface' => $surface],
        ] as $request) {
            $job = $this->job('/checks/deviations', $request + $usual);
            self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        }
        [$byPoints, $byCloud, $bySurface] = $this->get('/checks')['deviations'];
        self::assertEqualsWithDelta(-0.05, $byPoints['mean'], 1e-4);
        self::assertGreaterThan(150, $byPoints['used']);
        self::assertGreaterThan(200, $byPoints['outside']);
        self::assertSame([1600, 1600], [$byCloud['measured'], $byCloud['used']]);
        self::assertEqualsWithDelta(0.05, $byCloud['mean'], 1e-4);
        self::assertSame(441, $bySurface['measured']);
        self::assertSame([], $this->get('/checks/deviations/2/points')['names']);
        // The report names places of a cloud by their number.
        self::assertSame('done', $this->job('/handover', ['kind' => 'deviation-pdf', 'surfaces' => [2]])['state']);
        $refused = $this->job('/checks/deviations', ['name' => 'x', 'reference' => 'cloud', 'cloud' => 99] + $usual);
        self::assertStringContainsString('no such point cloud', (string) $refused['error']);
        // More ground makes the surface stale, and with it what was measured on it.
        $this->accept('more.csv', self::HEAD."M1,493001,6028001,200.1,GROUND\n");
        self::assertNotSame([], $this->get('/checks')['deviations'][2]['stale']);
    }
}
