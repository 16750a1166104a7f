<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Project\ProjectRepository;
use App\Survey\ObservationRepository;
use App\Tests\ApiTestCase;
use Symfony\Component\Process\Process;

/** What is handed over is opened by programs that share nothing with ours: GDAL, ezdxf, poppler. */
final class HandOverTest extends ApiTestCase
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/handover-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->acceptDemoFiles();
        $this->job('/network/adjust');
        $this->post('/network/accept');
        $crest = array_column(array_filter($this->get('/points')['points'], static fn (array $p): bool => 'CREST' === $p['code']), 'name');
        $this->post('/terrain/surfaces', [
            'name' => 'Pit',
            'roles' => ['surveyed'],
            'interval' => 0.5,
            'lines' => [['role' => 'breakline', 'name' => 'crest', 'points' => [...$crest, $crest[0]], 'vertices' => []]],
        ], 202);
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
        parent::tearDown();
    }

    public function testDrawingOpensElsewhere(): void
    {
        $surface = $this->get('/terrain')['surfaces'][0];
        $file = $this->write('dxf', [$surface['id']]);
        $script = <<<'PY'
            import sys, json, ezdxf
            doc = ezdxf.readfile(sys.argv[1])
            auditor = doc.audit()
            msp = doc.modelspace()
            points = [tuple(p.dxf.location) for p in msp.query('POINT')]
            print(json.dumps({"version": doc.dxfversion, "errors": [str(e) for e in auditor.errors], "fixes": len(auditor.fixes),
              "points": points,
              "names": [t.dxf.text for t in msp.query('TEXT[layer=="POINT-NAMES"]')], "contours": len(msp.query('LWPOLYLINE')),
              "breaklines": len(msp.query('POLYLINE')),
              "elevations": sorted({round(l.dxf.elevation, 3) for l in msp.query('LWPOLYLINE')}),
              "layers": sorted(l.dxf.name for l in doc.layers)}))
            PY;
        $seen = json_decode($this->tool('/usr/bin/python3', '-c', $script, $file), true, 16, \JSON_THROW_ON_ERROR);
        self::assertSame(['AC1015', []], [$seen['version'], $seen['errors']]);
        $points = $this->get('/points')['points'];
        self::assertCount(\count($points), $seen['points']);
        foreach ($points as $i => $p) {
            self::assertEqualsWithDelta([$p['e'], $p['n'], $p['h']], $seen['points'][$i], 1e-6);
            self::assertSame($p['name'], $seen['names'][$i]);
        }
        self::assertSame($surface['contourCount'], $seen['contours']);
        self::assertSame(1, $seen['breaklines']);
        self::assertContains('PIT-CONTOURS-INDEX', $seen['layers']);
        self::assertSame([], array_filter($seen['elevations'], static fn (float $h): bool => abs($h / 0.5 - round($h / 0.5)) > 1e-9));

        $gdal = $this->tool('ogrinfo', '-ro', '-al', '-so', $file);
        self::assertMatchesRegularExpression('/Feature Count: '.(\count($points) * 3 + $seen['contours'] + 1).'\b/', $gdal);
    }

    public function testCoordinatesOpenElsewhere(): void
    {
        $file = $this->write('csv', []);
        $contents = (string) file_get_contents($file);
        self::assertStringContainsString('EPSG:25830', $contents);
        $script = 'import csv, sys, json; rows = list(csv.reader(l for l in open(sys.argv[1], newline="", '
            .'encoding="utf-8") if not l.startswith("#"))); print(json.dumps(rows))';
        $rows = json_decode($this->tool('/usr/bin/python3', '-c', $script, $file), true, 16, \JSON_THROW_ON_ERROR);
        self::assertSame(['point', 'easting [m]', 'northing [m]', 'height [m]', 'code', 'role', 'source'], $rows[0]);
        foreach ($this->get('/points')['points'] as $i => $p) {
            self::assertSame($p['name'], $rows[$i + 1][0]);
            self::assertEqualsWithDelta($p['e'], (float) $rows[$i + 1][1], 1e-5);
        }
    }

    /** Every point with its name, place and system, as GDAL reads them. */
    public function testPointsOpenInInformationSystems(): void
    {
        $points = $this->get('/points')['points'];
        foreach (['gpkg' => 'gpkg', 'shapefile' => 'zip', 'geojson' => 'geojson', 'kml' => 'kml'] as $kind => $extension) {
            $file = $this->write($kind, []);
            $export = array_column($this->get('/handover')['exports'], null, 'kind')[$kind];
            self::assertTrue($export['holds'], $kind);
            self::assertStringEndsWith(".$extension", $export['name']);
            $path = 'shapefile' === $kind ? "/vsizip/$file" : $file;
            $json = $this->tool('ogr2ogr', '-f', 'GeoJSON', '-lco', 'COORDINATE_PRECISION=9', '/vsistdout/', $path);
            $read = json_decode($json, true, 32, \JSON_THROW_ON_ERROR)['features'];
            self::assertCount(\count($points), $read, $kind);
            foreach ($points as $i => $p) {
                self::assertSame($p['name'], (string) $read[$i]['properties']['kml' === $kind ? 'Name' : 'name'], $kind);
                if ('kml' !== $kind) {
                    self::assertSame($p['code'], (string) $read[$i]['properties']['code']);
                    self::assertEqualsWithDelta([$p['e'], $p['n']], \array_slice($read[$i]['geometry']['coordinates'], 0, 2), 1e-6, $kind);
                }
            }
            $about = $this->tool('ogrinfo', '-ro', '-al', '-so', $path);
            self::assertStringContainsString('kml' === $kind ? 'ID["EPSG",4326]' : 'ID["EPSG",25830]', $about);
        }
    }

    /** LandXML is read by what shares nothing with its writer: the structure by libxml, the surface's area by hand. */
    public function testLandXmlHoldsPointsAndSurfaces(): void
    {
        $surface = $this->get('/terrain')['surfaces'][0];
        $file = $this->write('landxml', [$surface['id']]);
        self::assertTrue(array_column($this->get('/handover')['exports'], null, 'kind')['landxml']['holds']);
        $xml = simplexml_load_string(str_replace('xmlns=', 'ns=', (string) file_get_contents($file)));
        self::assertNotFalse($xml);
        self::assertSame('25830', (string) $xml->CoordinateSystem['epsgCode']);
        self::assertSame('meter', (string) $xml->Units->Metric['linearUnit']);
        $points = $this->get('/points')['points'];
        foreach ($points as $i => $p) {
            $mark = $xml->CgPoints->CgPoint[$i];
            self::assertSame([$p['name'], $p['code']], [(string) $mark['name'], (string) $mark['code']]);
            [$n, $e, $h] = array_map(floatval(...), explode(' ', (string) $mark));
            self::assertEqualsWithDelta([$p['e'], $p['n'], $p['h']], [$e, $n, $h], 1e-9);
        }
        $definition = $xml->Surfaces->Surface->Definition;
        self::assertSame('Pit', (string) $xml->Surfaces->Surface['name']);
        $corners = [];
        foreach ($definition->Pnts->P as $p) {
            $corners[(string) $p['id']] = array_map(floatval(...), explode(' ', (string) $p));
        }
        $area = 0.0;
        foreach ($definition->Faces->F as $f) {
            [$a, $b, $c] = array_map(static fn (string $id): array => $corners[$id], explode(' ', (string) $f));
            $area += 0.5 * (($b[1] - $a[1]) * ($c[0] - $a[0]) - ($c[1] - $a[1]) * ($b[0] - $a[0]));
        }
        self::assertEqualsWithDelta($surface['planArea'], $area, 1e-3);
        self::assertCount($surface['triangles'], $definition->Faces->F);
    }

    /** The sights of the project, brought back through Intake: as many pointings, from as many setups, every value as it was. */
    public function testSightsGoOutAsLandXmlAndComeBack(): void
    {
        $file = $this->bring('back.xml', (string) file_get_contents($this->write('survey', [])));
        self::assertSame('total-station', $file['kind']);
        $counts = $this->get("/intake/{$file['id']}")['counts'];
        self::assertGreaterThan(10, $counts['pointings']);
        $before = $this->sights();
        $this->post("/intake/{$file['id']}/accept");
        $after = $this->sights();
        self::assertCount(2 * \count($before), $after);
        $back = \array_slice($after, \count($before));
        sort($before);
        sort($back);
        foreach ($before as $i => $sight) {
            self::assertEqualsWithDelta($sight, $back[$i], 1e-9);
        }
    }

    /** @return list<array{string, string, string, float, float}> kind, from, to, value, height of the instrument */
    private function sights(): array
    {
        $project = $this->service(ProjectRepository::class)->find(1) ?? self::fail('no project');
        $sights = [];
        foreach ($this->service(ObservationRepository::class)->rows($project) as $o) {
            if (!\in_array($o->kind, ['vector', 'height-difference'], true)) {
                $sights[] = [$o->kind, $o->from, $o->to, $o->v1, $o->hi];
            }
        }

        return $sights;
    }

    public function testReportOpensElsewhere(): void
    {
        $file = $this->write('pdf', []);
        $text = $this->tool('pdftotext', '-layout', $file, '-');
        $network = $this->get('/network');
        self::assertStringContainsString($network['runs'][0]['headline'], $text);
        foreach ($network['stations'] as $s) {
            self::assertMatchesRegularExpression('/'.$s['name'].'\s+'.preg_quote(\sprintf('%.4f', $s['e']), '/').'/', $text);
        }
        self::assertStringContainsString('Nothing is set aside', $text);
    }

    public function testReportsTellTheLevelRunsAndTheHtmlDrawsTheNetwork(): void
    {
        $sight = static fn (string $kind, string $point, float $reading): array => [
            'kind' => $kind, 'point' => $point, 'reading' => $reading, 'distance' => 30.0,
        ];
        // From KT01 at 236.418 m up and down again: 1.2 - 1.0 + 1.0 - 1.208 leaves 8 mm over 120 m; allowed are 12 mm by the root of
        // the kilometres, 4.2 mm.
        $rows = [$sight('back', 'KT01', 1.2), $sight('fore', 'X', 1.0), $sight('back', 'X', 1.0), $sight('fore', 'KT01', 1.208)];
        $this->call('PUT', '/levels/runs', ['id' => null, 'name' => 'yard', 'pattern' => 'BF', 'rows' => $rows], 200);
        $pdf = (string) preg_replace('/\s+/', ' ', $this->tool('pdftotext', '-layout', $this->write('pdf', []), '-'));
        $html = (string) file_get_contents($this->write('html', []));
        foreach ([$pdf, (string) preg_replace('/\s+/', ' ', strip_tags(strtr($html, ['</td>' => ' '])))] as $text) {
            self::assertMatchesRegularExpression('/Level runs.*yard KT01 KT01 2 120\.0 .*-8\.0 mm 4\.2 mm fails/', $text);
        }
        $page = new \DOMDocument();
        $page->loadHTML($html, \LIBXML_NOERROR);
        $network = $this->get('/network');
        $ellipses = array_filter($network['stations'], static fn (array $s): bool => $s['semiMajor'] > 0.0);
        self::assertSame(\count($ellipses), $page->getElementsByTagName('ellipse')->length);
        self::assertSame(\count($network['stations']), $page->getElementsByTagName('rect')->length);
        self::assertStringContainsString('drawn x ', $html);
    }

    public function testReportHoldsNamesOfAnyScriptAndReasonsInFull(): void
    {
        $station = $this->get('/network')['stations'][0]['name'];
        $this->post('/points/rename', ['from' => $station, 'to' => 'Ωλ-7 Łąka Юг']);
        $row = $this->get('/network')['rows'][0];
        $reason = 'the tripod was found leaning on the morning after, so that neither this sight nor the one before it '
            .'can be held to be good; measured again on the day after';
        $this->post(
            '/network/use',
            ['rows' => [['id' => $row['id'], 'component' => $row['component']]], 'aside' => true, 'reason' => $reason],
        );
        $this->job('/network/adjust');
        $text = (string) preg_replace('/\s+/', ' ', $this->tool('pdftotext', '-layout', $this->write('pdf', []), '-'));
        self::assertStringContainsString('Ωλ-7 Łąka Юг', $text);
        self::assertStringContainsString($reason, $text);
    }

    public function testReceiptsAndArchive(): void
    {
        $this->write('csv', []);
        $this->write('csv', []);
        $list = $this->get('/handover');
        self::assertCount(1, $list['exports']);
        self::assertCount(1, $list['archive']);
        self::assertTrue($list['exports'][0]['holds']);
        self::assertSame([['points', '500', '500', true]], array_map(array_values(...), \array_slice($list['exports'][0]['checks'], 0, 1)));
        $this->get('/handover/999999/file', 404);
        // Two of a kind: the same to the byte; then a point changes, and the comparison says where that comes from.
        [$now, $before] = [$list['exports'][0], $list['archive'][0]];
        self::assertSame([hash('sha256', $this->download("/handover/{$now['id']}/file")), true], [
            $now['sha256'], $this->get("/handover/{$now['id']}/against/{$before['id']}")['same'],
        ]);
        self::assertStringStartsWith('coordinates of points ', $now['inputs'][0]);
        $this->accept('new.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nNEW1,493600,6028196,240\n");
        $this->write('csv', []);
        $newest = $this->get('/handover')['exports'][0];
        $compared = $this->get("/handover/{$newest['id']}/against/{$now['id']}");
        self::assertSame([false, 0, 1], [$compared['same'], $compared['gone'], $compared['new']]);
        self::assertSame(['coordinates of points changed', 'points: 500 before, 501 now'], $compared['because']);
        self::assertStringStartsWith('NEW1,493600', $compared['now'][0]);
        $this->get("/handover/{$newest['id']}/against/999999", 404);
    }

    public function testAFileWhoseReceiptDoesNotHoldIsNotOffered(): void
    {
        $this->write('csv', []);
        $row = $this->database()->fetchAssociative(
            "SELECT id, summary FROM result WHERE kind = 'export' AND project_id = ?",
            [$this->project],
        );
        self::assertIsArray($row);
        $this->database()->update(
            'result',
            ['summary' => strtr($row['summary'], ['"holds":true,"leftOut"' => '"holds":false,"leftOut"'])],
            ['id' => $row['id']],
        );
        $problem = $this->get("/handover/{$row['id']}/file", 409);
        self::assertStringContainsString('receipt does not hold', $problem['detail']);
    }

    public function testDrawnLinesHaveNoHeightsAndTheFileSaysSo(): void
    {
        $this->post('/terrain/surfaces', ['name' => 'Cut', 'roles' => ['surveyed'], 'interval' => 0.5, 'lines' => [[
            'role' => 'boundary',
            'name' => 'b',
            'points' => [],
            'vertices' => [[493560, 6028020], [493680, 6028020], [493680, 6028100]],
        ]]], 202);
        $this->write('dxf', array_column($this->get('/terrain')['surfaces'], 'id'));
        $export = array_column($this->get('/handover')['exports'], null, 'kind')['dxf'];
        self::assertSame(['heights of drawn lines, written at 0: boundary of Cut'], $export['leftOut']);
    }

    public function testMissingThingsAreNamed(): void
    {
        self::assertStringContainsString(
            'there is no such surface',
            (string) $this->job('/handover', ['kind' => 'dxf', 'surfaces' => [4711]])['error'],
        );
        self::assertStringContainsString('kind', $this->post('/handover', ['kind' => 'doc'], 422)['detail']);
    }

    /** @param list<int> $surfaces */
    private function write(string $kind, array $surfaces): string
    {
        $job = $this->job('/handover', ['kind' => $kind, 'surfaces' => $surfaces]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $export = array_column($this->get('/handover')['exports'], null, 'kind')[$kind];
        $this->client->request('GET', "/api/projects/{$this->project}/handover/{$export['id']}/file");
        self::assertSame(200, $this->client->getResponse()->getStatusCode());
        self::assertStringContainsString(
            'attachment; filename='.$export['name'],
            (string) $this->client->getResponse()->headers->get('Content-Disposition'),
        );
        file_put_contents($this->folder.'/'.$export['name'], $this->client->getInternalResponse()->getContent());

        return $this->folder.'/'.$export['name'];
    }

    private function tool(string ...$command): string
    {
        return (new Process($command))->mustRun()->getOutput();
    }
}
