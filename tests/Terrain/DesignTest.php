<?php

declare(strict_types=1);

namespace App\Tests\Terrain;

use App\Tests\ApiTestCase;
use Mensura\Exchange\MeshBytes\MeshCodec;

/** What others drew is taken apart: corners become points, lines breaklines, faces a surface. */
final class DesignTest extends ApiTestCase
{
    private const HEAD = "point,easting [m],northing [m],ellipsoidal height [m],code\n";

    /** @param list<array{string, string, list<array{float, float, float}>}> $entities type, layer, corners */
    private static function dxf(array $entities): string
    {
        $text = "0\nSECTION\n2\nENTITIES\n";
        foreach ($entities as [$type, $layer, $corners]) {
            $isLine = 'POLYLINE' === $type;
            $text .= "0\n$type\n8\n$layer\n".($isLine ? "66\n1\n70\n8\n" : '');
            foreach ($corners as $k => [$x, $y, $z]) {
                $k = $isLine ? 0 : $k;
                $text .= ($isLine ? "0\nVERTEX\n8\n$layer\n70\n32\n" : '')
                    .\sprintf("%d\n%.4F\n%d\n%.4F\n%d\n%.4F\n", 10 + $k, $x, 20 + $k, $y, 30 + $k, $z);
            }
            $text .= $isLine ? "0\nSEQEND\n" : '';
        }

        return $text."0\nENDSEC\n0\nEOF\n";
    }

    /** A ramp of six quads 2 m wide, falling 0.1 m a quad, with an upright face at its end and a lid 3 m above. */
    private static function ramp(): string
    {
        $entities = [];
        for ($k = 0; $k < 6; ++$k) {
            [$w, $e, $h] = [493000.0 + 5 * $k, 493005.0 + 5 * $k, 200.0 - 0.1 * $k];
            $entities[] = ['3DFACE', 'RAMP', self::quad([$w, $h], [$e, $h - 0.1])];
        }
        $entities[] = ['3DFACE', 'WALL', self::quad([493000.0, 200.0], [493000.0, 198.0])];
        $entities[] = ['3DFACE', 'LID', self::quad([493000.0, 203.0], [493030.0, 203.0])];

        return self::dxf($entities);
    }

    /**
     * Two metres wide, from one place to another, each easting and height.
     *
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return list<array{float, float, float}>
     */
    private static function quad(array $from, array $to): array
    {
        [$s, $n] = [6028000.0, 6028002.0];

        return [[$from[0], $s, $from[1]], [$to[0], $s, $to[1]], [$to[0], $n, $to[1]], [$from[0], $n, $from[1]]];
    }

    public function testFacesBecomeASurface(): void
    {
        $this->accept('ramp.dxf', self::ramp());
        [$design] = $this->get('/designs');
        self::assertSame(['ramp.dxf', 8, ['RAMP' => 6, 'WALL' => 1, 'LID' => 1], 0], [
            $design['name'], $design['faces'], $design['layers'], $design['lines'],
        ]);
        $drawing = $this->get("/designs/{$design['id']}");
        self::assertSame([['RAMP', 'WALL', 'LID'], 8, 48], [
            $drawing['layers'], \count($drawing['faceLayer']), \count($drawing['triangles']),
        ]);
        $ask = fn (array $taken, string $name): array => $this->job('/terrain/surfaces', [
            'name' => $name, 'design' => ['file' => $design['id']] + $taken, 'interval' => 0.1,
        ]);
        self::assertStringContainsString('faces lie above one another', (string) $ask([], 'all')['error']);
        $job = $ask(['layers' => ['RAMP', 'WALL']], 'ramp');
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        $surfaces = array_column($this->get('/terrain')['surfaces'], null, 'name');
        self::assertSame([12, 14, ['2 faces stand upright and are left out']], [
            $surfaces['ramp']['triangles'], $surfaces['ramp']['points'], $surfaces['ramp']['warnings'],
        ]);
        self::assertEqualsWithDelta(60.0, $surfaces['ramp']['planArea'], 1e-6);
        self::assertEqualsWithDelta(6 * 2.0 * hypot(5.0, 0.1), $surfaces['ramp']['surfaceArea'], 1e-6);
        // Three faces that were picked; points that come change nothing of it.
        $ask(['faces' => [0, 1, 2]], 'upper');
        $this->accept('more.csv', self::HEAD."X,493001,6028001,210,Y\n");
        $surfaces = array_column($this->get('/terrain')['surfaces'], null, 'name');
        self::assertSame([6, [], ['file' => $design['id'], 'layers' => [], 'faces' => [0, 1, 2], 'unit' => '', 'role' => 'breakline']], [
            $surfaces['upper']['triangles'], $surfaces['upper']['stale'], $surfaces['upper']['design'],
        ]);
        self::assertSame('done', $this->job('/checks/deviations', [
            'name' => 'x', 'reference' => 'surface', 'surface' => $surfaces['upper']['id'], 'along' => 'normal',
        ])['state']);
        $check = $this->get('/checks')['deviations'][0];
        self::assertEqualsWithDelta((210.0 - 199.98) * cos(atan(0.02)), $check['mean'], 1e-6);
        self::assertStringContainsString('say which points', $this->post('/terrain/surfaces', ['name' => 'none'], 422)['detail']);
        $wrong = ['name' => 'none', 'design' => ['file' => 'x']];
        self::assertStringContainsString('number of a design file', $this->post('/terrain/surfaces', $wrong, 422)['detail']);
        $wrong = ['name' => 'none', 'design' => ['file' => $design['id'], 'faces' => [99]]];
        self::assertStringContainsString('none of these faces', $this->post('/terrain/surfaces', $wrong, 422)['detail']);
    }

    public function testCornersBecomePoints(): void
    {
        $this->accept('ramp.dxf', self::ramp());
        [$design] = $this->get('/designs');
        $path = "/designs/{$design['id']}/points";
        $this->post($path, ['corners' => [0, 1, 5], 'prefix' => 'EDGE-', 'code' => 'EDGE']);
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertSame(['EDGE-1', 'EDGE-2', 'EDGE-3'], array_keys($points));
        self::assertSame(['EDGE', 'surveyed', 493005.0, 199.9, 'ramp.dxf'], [
            $points['EDGE-2']['code'], $points['EDGE-2']['role'], $points['EDGE-2']['e'], $points['EDGE-2']['h'], $points['EDGE-2']['file'],
        ]);
        self::assertStringContainsString('EDGE-1 already', $this->post($path, ['corners' => [2], 'prefix' => 'EDGE-'], 422)['detail']);
        self::assertStringContainsString('no corner 900', $this->post($path, ['corners' => [900], 'prefix' => 'Z'], 422)['detail']);
        $this->post($path, ['corners' => [], 'prefix' => 'Z'], 422);
        $this->post('/designs/99/points', ['corners' => [1], 'prefix' => 'Z'], 422);
        $this->get('/designs/99', 404);
        $this->undoLast();
        self::assertSame([], $this->get('/points')['points']);
    }

    /** A scan makes a surface: by class where its points have one, thinned, inside an area; its own points lie on it. */
    public function testAPointCloudIsASurface(): void
    {
        $points = '';
        // Ground of class 2 on a plane, and a bush of class 4 on every fifth point.
        for ($i = 0; $i < 400; ++$i) {
            [$e, $n] = [$i % 20, intdiv($i, 20)];
            $isBush = 0 === $i % 5;
            $h = 200.0 + 0.1 * $e + ($isBush ? 2.0 : 0.0);
            $points .= pack('V3vCCcCv', $e * 1000, $n * 1000, (int) round($h * 1000), 0, 0, $isBush ? 4 : 2, 0, 0, 0);
        }
        $head = 'LASF'.str_repeat("\0", 20)."\1\2".str_repeat("\0", 64).str_repeat("\0", 4).pack('vVV', 227, 227, 0).pack('CvV', 0, 20, 400)
            .str_repeat("\0", 20).pack('e6', 0.001, 0.001, 0.001, 493000.0, 6028000.0, 0.0)
            .pack('e6', 493019.0, 493000.0, 6028019.0, 6028000.0, 203.9, 200.0);
        self::assertSame(227, \strlen($head));
        $this->accept('scan.las', $head.$points);
        [$cloud] = $this->get('/terrain')['clouds'];
        self::assertSame(['scan.las', 400], [$cloud['name'], $cloud['points']]);
        $make = fn (string $name, array $taken, array $more = []): array => $this->job('/terrain/surfaces', [
            'name' => $name, 'interval' => 0.5, 'cloud' => ['file' => $cloud['id']] + $taken,
        ] + $more);
        foreach (['all' => [], 'ground' => ['classes' => [2]], 'thin' => ['classes' => [2], 'spacing' => 5.0]] as $name => $taken) {
            $job = $make($name, $taken);
            self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        }
        $make('part', [], ['areas' => [[[492999.0, 6027999.0], [493005.5, 6027999.0], [493005.5, 6028005.5], [492999.0, 6028005.5]]]]);
        $surfaces = array_column($this->get('/terrain')['surfaces'], null, 'name');
        self::assertSame([400, 320, 16, 36], array_map(
            static fn (string $name): int => $surfaces[$name]['points'], ['all', 'ground', 'thin', 'part'],
        ));
        self::assertEqualsWithDelta(201.9, $surfaces['ground']['hMax'], 1e-9);
        $preview = $this->post('/terrain/preview', ['name' => 'would be', 'cloud' => ['file' => $cloud['id'], 'classes' => [2]]]);
        self::assertSame([320, null], [$preview['points'], $preview['refusal']]);
        self::assertNotNull($preview['mesh'], 'a cloud is shown while it is chosen');
        self::assertSame(['file' => $cloud['id'], 'classes' => [2], 'spacing' => 5], $surfaces['thin']['cloud']);
        self::assertStringContainsString('at least three', $this->post('/terrain/surfaces', [
            'name' => 'none', 'cloud' => ['file' => $cloud['id'], 'classes' => [9]],
        ], 422)['detail']);
        self::assertStringContainsString('no such point cloud', $this->post('/terrain/surfaces', [
            'name' => 'none', 'cloud' => ['file' => 99],
        ], 422)['detail']);
        $this->post('/terrain/surfaces', ['name' => 'none', 'cloud' => ['file' => $cloud['id'], 'spacing' => -1]], 422);
    }

    /** A kerb that another office drew holds the surface in shape: the wall stands where the line is. */
    public function testDrawnLinesAreBreaklines(): void
    {
        $rows = '';
        foreach ([0.0, 10.0, 20.0] as $i => $e) {
            foreach ([0.0, 10.0, 20.0] as $k => $n) {
                $rows .= \sprintf("P%d%d,%.1f,%.1f,200,G\n", $i, $k, 493000 + $e, 6028000 + $n);
            }
        }
        $this->accept('ground.csv', self::HEAD.$rows);
        $this->accept('kerb.dxf', self::dxf([
            ['POLYLINE', 'KERB', [[493003.0, 6028005.0, 201.0], [493009.0, 6028006.0, 201.0], [493017.0, 6028005.0, 201.0]]],
            ['LINE', 'AXIS', [[493000.0, 6028001.0, 500.0], [493020.0, 6028001.0, 500.0]]],
            ['POINT', 'PEGS', [[493001.0, 6028001.0, 1.0]]],
        ]));
        $design = array_column($this->get('/designs'), null, 'name')['kerb.dxf'];
        self::assertSame([0, 2, 1, ['KERB' => 1, 'AXIS' => 1]], [
            $design['faces'], $design['lines'], $design['points'], $design['lineLayers'],
        ]);
        self::assertSame([], $this->get('/checks')['designs'], 'without faces it is nothing to compare with');
        $job = $this->job('/terrain/surfaces', [
            'name' => 'ground', 'roles' => ['surveyed'], 'interval' => 0.5, 'drawn' => [['file' => $design['id'], 'layers' => ['KERB']]],
        ]);
        self::assertSame('done', $job['state'], (string) ($job['error'] ?? ''));
        [$surface] = $this->get('/terrain')['surfaces'];
        self::assertEqualsWithDelta([201.0, 12], [$surface['hMax'], $surface['points']], 1e-9);
        $preview = $this->post('/terrain/preview', [
            'name' => 'ground', 'roles' => ['surveyed'], 'interval' => 0.5, 'drawn' => [['file' => $design['id']]],
        ]);
        self::assertSame(9, $preview['points']);
        self::assertSame('breakline', $surface['drawn'][0]['role']);
        self::assertSame('done', $this->job('/handover', ['kind' => 'dxf', 'surfaces' => [$surface['id']]])['state']);
        $export = array_column($this->get('/handover')['exports'], null, 'kind')['dxf'];
        $drawing = $this->download("/handover/{$export['id']}/file");
        self::assertSame(3, preg_match_all('/\n  8\nGROUND-BREAKLINE\n100\nAcDbVertex/', $drawing), 'what others drew is handed on');
        $wrong = ['name' => 'g', 'roles' => ['surveyed'], 'drawn' => [['file' => $design['id'], 'layers' => ['MOON']]]];
        self::assertStringContainsString('draws no line', $this->post('/terrain/surfaces', $wrong, 422)['detail']);
    }

    /** Outlines lie at height 0 in plans of others: they cut in plan, and the surface keeps its heights. */
    public function testDrawnRingsAreBoundariesAndVoids(): void
    {
        $rows = '';
        foreach ([0.0, 10.0, 20.0, 30.0] as $i => $e) {
            foreach ([0.0, 10.0, 20.0, 30.0] as $k => $n) {
                $rows .= \sprintf("P%d%d,%.1f,%.1f,%.1f,G\n", $i, $k, 493000 + $e, 6028000 + $n, 200 + 0.1 * $e);
            }
        }
        $this->accept('ground.csv', self::HEAD.$rows);
        $ring = static fn (float $a, float $b): array => [
            [493000 + $a, 6028000 + $a, 0.0], [493000 + $b, 6028000 + $a, 0.0], [493000 + $b, 6028000 + $b, 0.0],
            [493000 + $a, 6028000 + $b, 0.0], [493000 + $a, 6028000 + $a, 0.0],
        ];
        $this->accept('plan.dxf', self::dxf([
            ['POLYLINE', 'LIMIT', $ring(2.0, 26.0)], ['POLYLINE', 'POND', $ring(12.0, 18.0)],
            ['LINE', 'AXIS', [[493000.0, 6028001.0, 0.0], [493020.0, 6028001.0, 0.0]]],
        ]));
        $file = array_column($this->get('/designs'), null, 'name')['plan.dxf']['id'];
        $limit = ['file' => $file, 'layers' => ['LIMIT'], 'role' => 'boundary'];
        $pond = ['file' => $file, 'layers' => ['POND'], 'role' => 'void'];
        $wanted = ['name' => 'ground', 'roles' => ['surveyed'], 'interval' => 0.5, 'drawn' => [$limit, $pond]];
        self::assertNull($this->post('/terrain/preview', $wanted)['refusal']);
        self::assertSame('done', $this->job('/terrain/surfaces', $wanted)['state']);
        [$surface] = $this->get('/terrain')['surfaces'];
        self::assertEqualsWithDelta([24.0 ** 2 - 6.0 ** 2, 200.2, 202.6], [$surface['planArea'], $surface['hMin'], $surface['hMax']], 1e-6);
        self::assertSame(['boundary', 'void'], array_column($surface['drawn'], 'role'));

        $open = ['drawn' => [['file' => $file, 'layers' => ['AXIS'], 'role' => 'void']]] + $wanted;
        $refusal = $this->post('/terrain/preview', $open)['refusal'];
        self::assertStringContainsString('line AXIS 3 is open by 20.000 m; a void is a closed line', $refusal);
        $what = ['drawn' => [['file' => $file, 'role' => 'hole']]] + $wanted;
        self::assertStringContainsString('is breakline, boundary or void', $this->post('/terrain/preview', $what, 422)['detail']);
    }

    /** Values by cs2cs of PROJ 9.1.1, as {@see \App\Tests\Reference\ChangeTest}: the drawing lies where its points do. */
    public function testDrawingsCloudsAndDrawnLinesFollowTheSystem(): void
    {
        $rows = "A,493612.345,6028050.5,221.25,G\nB,493622.345,6028050.5,221.25,G\n"
            ."C,493612.345,6028070.5,222.25,G\nD,493622.345,6028070.5,222.25,G\n";
        $this->accept('ground.csv', self::HEAD.$rows);
        $this->accept('axis.dxf', self::dxf([['LINE', 'AXIS', [[493612.345, 6028050.5, 221.25], [493622.345, 6028070.5, 222.25]]]]));
        $this->accept('scan.xyz', "493612.345 6028050.500 221.250\n493622.345 6028050.500 221.250\n493612.345 6028070.500 222.250\n");
        $file = array_column($this->get('/designs'), 'id')[0];
        $surface = ['name' => 'ground', 'roles' => ['surveyed'], 'interval' => 0.5];
        self::assertSame('done', $this->job('/terrain/surfaces', $surface)['state']);
        $id = $this->get('/terrain')['surfaces'][0]['id'];
        $ring = [[493612.345, 6028050.5], [493620.0, 6028050.5], [493620.0, 6028065.0]];
        $volume = ['name' => 'v', 'surface' => $id, 'against' => 'elevation', 'elevation' => 220];
        $this->job('/terrain/volumes', $volume + ['boundary' => $ring]);
        $line = [[493612.345, 6028050.5], [493622.345, 6028070.5]];
        $this->job('/terrain/sections', ['name' => 's', 'surfaces' => [$id], 'line' => $line]);

        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200);
        $points = array_column($this->get('/points')['points'], null, 'name');
        $drawing = $this->get("/designs/$file");
        foreach (['A', 'D'] as $i => $name) {
            $p = $points[$name];
            $drawn = [$drawing['x'][$i], $drawing['y'][$i], $drawing['z'][$i]];
            self::assertEqualsWithDelta([$p['e'], $p['n'], $p['h']], $drawn, 2e-5, $name);
        }
        self::assertEqualsWithDelta([882909.05712, 6044104.547], [$drawing['x'][0], $drawing['y'][0]], 1e-4);
        $cloud = $this->get('/terrain')['clouds'][0]['id'];
        $preview = $this->post('/terrain/preview', ['name' => 'c', 'cloud' => ['file' => $cloud]]);
        $mesh = MeshCodec::decode((string) base64_decode($preview['mesh'], true));
        self::assertEqualsWithDelta($points['A']['e'], min($mesh->x), 20.0);
        self::assertEqualsWithDelta($points['A']['e'], $mesh->x[0], 2e-5);
        $terrain = $this->get('/terrain');
        self::assertEqualsWithDelta([$points['A']['e'], $points['A']['n']], $terrain['volumes'][0]['boundary'][0], 2e-5);
        self::assertEqualsWithDelta([$points['D']['e'], $points['D']['n']], $terrain['sections'][0]['line'][1], 2e-5);
        self::assertNotSame([], $terrain['volumes'][0]['stale']);

        $this->post('/ledger/'.$this->get('/ledger')['entries'][0]['seq'].'/undo');
        self::assertSame(493612.345, $this->get("/designs/$file")['x'][0]);
        self::assertSame($ring[0], $this->get('/terrain')['volumes'][0]['boundary'][0]);

        // Over another datum by the transformation that was chosen, and on from there: every step is gone.
        foreach (['EPSG:27700', 'EPSG:25829'] as $system) {
            $change = ['reference' => $system, 'heights' => 'ellipsoidal'];
            $candidates = $this->post('/reference/preview', $change)['candidates'];
            $usable = array_filter($candidates, static fn (array $c): bool => $c['usable'] && str_contains($c['name'], '(6)'));
            $this->call('PUT', '/reference', $change + ['operation' => array_column($usable, 'name')[0]], 200);
        }
        $points = array_column($this->get('/points')['points'], null, 'name');
        $drawing = $this->get("/designs/$file");
        self::assertEqualsWithDelta(
            [$points['D']['e'], $points['D']['n'], $points['D']['h']], [$drawing['x'][1], $drawing['y'][1], $drawing['z'][1]], 3e-5,
        );
        self::assertEqualsWithDelta(882909.05712, $points['A']['e'], 1e-3);
    }
}
