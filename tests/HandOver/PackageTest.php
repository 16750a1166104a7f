<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Tests\ApiTestCase;
use Demo\HaulRoad;
use Demo\Heap;
use Symfony\Component\Process\Process;

/** From a drawing and an alignment to a package, onto the simulated controller, and back with shots. */
final class PackageTest extends ApiTestCase
{
    private string $folder;
    private int $may;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/package-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->accept(Heap::MAY, (new Heap())->survey(false));
        $this->accept(HaulRoad::FILE, (new HaulRoad())->design());
        $this->accept('kerbs.dxf', $this->drawing());
        $may = ['name' => 'May', 'roles' => ['surveyed'], 'codes' => ['HEAP'], 'interval' => 1];
        $this->may = $this->post('/terrain/surfaces', $may, 202)['surface'];
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
        parent::tearDown();
    }

    /** Lines of a drawing made by ezdxf, that nobody here wrote. */
    private function drawing(): string
    {
        $script = <<<'PY'
            import sys, ezdxf
            d = ezdxf.new("R2010", units=6); m = d.modelspace(); e, n = 493600.0, 6028196.0
            m.add_polyline3d([(e - 10, n - 10, 231.0), (e + 10, n - 10, 232.0), (e + 10, n + 10, 233.0)], dxfattribs={"layer": "KERB"})
            m.add_lwpolyline([(e - 20, n - 20), (e + 20, n - 20)], dxfattribs={"layer": "FENCE", "elevation": 230})
            m.add_line((e, n, 235.5), (e, n + 8, 235.5), dxfattribs={"layer": "KERB"})
            d.saveas(sys.argv[1])
            PY;
        (new Process(['/usr/bin/python3', '-c', $script, "$this->folder/kerbs.dxf"]))->mustRun();

        return (string) file_get_contents("$this->folder/kerbs.dxf");
    }

    /** @return array{int, array<mixed>} number of the result, and the package's view */
    private function written(): array
    {
        $choices = $this->get('/handover/packages');
        $file = array_column($choices['layers'], 'file', 'layer')['KERB'];
        self::assertSame([['file' => $file, 'fileName' => 'kerbs.dxf', 'layer' => 'KERB', 'lines' => 2]], array_values(
            array_filter($choices['layers'], static fn (array $l): bool => 'KERB' === $l['layer']),
        ));
        $road = $choices['alignments'][0];
        $id = $this->post('/handover/packages', [
            'name' => 'heap', 'surfaces' => [$this->may], 'roles' => ['surveyed'], 'codes' => ['HEAP'],
            'layers' => [
                ['file' => $file, 'layer' => 'KERB', 'colour' => 'blue'], ['file' => $file, 'layer' => 'FENCE', 'colour' => 'background'],
            ],
            'alignments' => [['file' => $road['file'], 'name' => $road['name']]],
        ])['package'];
        $job = $this->job('/handover', ['kind' => 'package', 'surfaces' => [$id]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $package = $this->get('/handover/packages')['packages'][0];

        return [$package['files'][0]['id'], $package];
    }

    public function testThePageShowsWhatTheZipHolds(): void
    {
        [$result, $package] = $this->written();
        self::assertTrue($package['files'][0]['holds'], json_encode($package['files'][0]['checks'], \JSON_THROW_ON_ERROR));
        $held = $this->get("/handover/$result/held");
        $points = $this->get('/points')['points'];
        $surface = $this->get('/terrain')['surfaces'][0];
        $items = array_map(static fn (array $i): array => [$i['kind'], $i['name'], $i['count'], $i['why']], $held['items']);
        self::assertSame([
            ['surface', 'May', $surface['triangles'], ''], ['alignment', HaulRoad::NAME, $items[1][2], ''], ['lines', 'KERB', 2, ''],
            ['points', 'points', \count($points), ''], ['background', 'background', 1, ''],
            ['system', $held['system'], 1, ''],
        ], $items);
        self::assertSame('Surface May, run 1', $held['items'][0]['from']);
        self::assertSame([['name' => 'KERB', 'colour' => '#2a5bd7', 'lines' => 2]], $held['layers']);
        $drawing = $this->get("/handover/$result/held/drawing");
        self::assertEquals([[493600.0, 6028196.0, 235.5], [493600.0, 6028204.0, 235.5]], $drawing['lines'][1]['vertices']);
        // The files say the same to others: its system to PROJ by GDAL, its drawing to ezdxf.
        file_put_contents("$this->folder/p.zip", $this->download("/handover/$result/file"));
        $zip = new \ZipArchive();
        $zip->open("$this->folder/p.zip");
        $zip->extractTo($this->folder);
        $wkt = (string) file_get_contents("$this->folder/system.wkt2");
        self::assertStringContainsString('25830', (new Process(['gdalsrsinfo', '-o', 'epsg', $wkt]))->mustRun()->getOutput());
        $gdal = (new Process(['ogrinfo', '-ro', '-al', '-so', "$this->folder/lines.dxf"]))->mustRun()->getOutput();
        self::assertStringContainsString('Feature Count: 2', $gdal);
    }

    public function testTheControllerStakesOutAndShotsComeBack(): void
    {
        [$result] = $this->written();
        $name = $this->get('/points')['points'][3]['name'];
        $mark = $this->get("/handover/$result/held/drawing")['points'][3];
        self::assertSame($name, $mark['name']);
        $places = [
            [$mark['e'] - 3.0, $mark['n'] - 4.0, 0.0], [Heap::EAST - 5.0, Heap::NORTH - 8.0, 90.0], [Heap::EAST, Heap::NORTH + 900.0, 0.0],
        ];
        $fixes = $this->post("/handover/$result/held/fixes", ['places' => $places, 'surface' => 0, 'point' => $name, 'line' => 'line 0']);
        // Within the noise of the rover, whose seed is fixed: five times 8 mm.
        $to = $fixes[0]['point'];
        self::assertEqualsWithDelta([5.0, 4.0, 3.0], [$to['distance'], $to['forward'], $to['right']], 0.04);
        self::assertEqualsWithDelta([5.0, -2.0], [$fixes[1]['line']['station'], $fixes[1]['line']['offset']], 0.04);
        self::assertEqualsWithDelta($fixes[1]['h'] - $fixes[1]['above'], $fixes[1]['design'], 1e-9);
        self::assertNotEqualsWithDelta(0.0, $fixes[1]['above'], 1e-4);
        self::assertNull($fixes[2]['design'], 'Far off there is no surface.');
        // The height under the rover is that of the surface the project has.
        $at = [$fixes[1]['e'], $fixes[1]['n']];
        self::assertEqualsWithDelta(Heap::height($at[0], $at[1], false), $fixes[1]['design'], 1.0);

        $shots = array_map(static fn (array $f): array => [
            'e' => $f['e'], 'n' => $f['n'], 'h' => $f['h'], 'count' => 5, 'sd' => 0.004, 'code' => 'AS BUILT', 'note' => '',
        ], \array_slice($fixes, 0, 2));
        $taken = $this->post("/handover/$result/held/shots", ['shots' => $shots, 'prefix' => 'AB-']);
        self::assertSame(['AB-1', 'AB-2'], $taken['names']);
        $points = array_column($this->get('/points')['points'], null, 'name');
        self::assertEqualsWithDelta([$fixes[1]['e'], $fixes[1]['n'], $fixes[1]['h']], [
            $points['AB-2']['e'], $points['AB-2']['n'], $points['AB-2']['h'],
        ], 5e-5);
        self::assertSame('AS-BUILT', $points['AB-2']['code']);
        self::assertSame(['AB-3', 'AB-4'], $this->post("/handover/$result/held/shots", ['shots' => $shots])['names']);
        // And are held against the design, as any other measured points.
        $this->job('/recompute');
        $job = $this->job('/checks/deviations', [
            'name' => 'as built', 'reference' => 'surface', 'surface' => $this->may, 'along' => 'vertical', 'codes' => ['AS-BUILT'],
        ]);
        self::assertSame('done', $job['state'], (string) $job['error']);
    }

    public function testItGoesStaleAndIsRefusedInWords(): void
    {
        $this->written();
        $this->accept('one.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\nX,493600,6028196,240,HEAP\n");
        self::assertNotSame([], $this->get('/handover/packages')['packages'][0]['files'][0]['stale']);
        $refused = [
            [['name' => 'empty'], 'nothing is in this package'], [['name' => 'x', 'roles' => ['odd']], 'no role of points'],
            [['name' => 'x', 'layers' => [['file' => 1, 'layer' => 'L', 'colour' => 'pink']]], 'is one of red'],
            [['name' => 'heap', 'roles' => ['surveyed']], 'already'],
        ];
        foreach ($refused as [$body, $words]) {
            self::assertStringContainsString($words, $this->post('/handover/packages', $body, 422)['detail']);
        }
        $id = $this->post('/handover/packages', ['name' => 'gone', 'surfaces' => [4711]])['package'];
        $error = $this->job('/handover', ['kind' => 'package', 'surfaces' => [$id]])['error'];
        self::assertStringContainsString('no such surface', (string) $error);
        $this->get('/handover/999999/held', 404);
    }
}
