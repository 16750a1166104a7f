<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Tests\ApiTestCase;
use Demo\HaulRoad;
use Demo\Heap;
use Demo\SiteLines;
use Symfony\Component\Process\Process;

/** Drawings are opened by ezdxf and LandXML by libxml: they share nothing with what wrote them. */
final class CadTest extends ApiTestCase
{
    private string $folder;
    private int $surface;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/cad-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->accept(Heap::MAY, (new Heap())->survey(false));
        $this->accept(HaulRoad::FILE, (new HaulRoad())->design());
        $this->accept(SiteLines::FILE, (new SiteLines())->design());
        $surface = ['name' => 'May', 'roles' => ['surveyed'], 'interval' => 1];
        $this->surface = $this->post('/terrain/surfaces', $surface, 202)['surface'];
    }

    protected function tearDown(): void
    {
        (new Process(['rm', '-rf', $this->folder]))->run();
        parent::tearDown();
    }

    /**
     * @param array<string, mixed> $more
     *
     * @return array<string, mixed>
     */
    private function set(array $more): array
    {
        $choices = $this->get('/handover/cad');
        $file = array_column($choices['layers'], 'file', 'layer')['KERB'];

        return $more + [
            'name' => 'all', 'roles' => ['surveyed'],
            'surfaces' => [['id' => $this->surface, 'contours' => true, 'lines' => true, 'faces' => true]],
            'layers' => [['file' => $file, 'layer' => 'KERB'], ['file' => $file, 'layer' => 'WORKS-LIMIT']],
            'alignments' => array_map(static fn (array $a): array => ['file' => $a['file'], 'name' => $a['name']], $choices['alignments']),
        ];
    }

    /** @param array<string, mixed> $set */
    private function write(array $set): string
    {
        $id = $this->post('/handover/cad', $set)['set'];
        $job = $this->job('/handover', ['kind' => 'cad', 'surfaces' => [$id]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $file = array_column($this->get('/handover/cad')['sets'], null, 'id')[$id]['files'][0];
        self::assertTrue($file['holds'], json_encode($file['checks'], \JSON_THROW_ON_ERROR));
        file_put_contents("$this->folder/set.zip", $this->download("/handover/{$file['id']}/file"));
        $zip = new \ZipArchive();
        $zip->open("$this->folder/set.zip");
        $zip->extractTo($this->folder);

        return "$this->folder/drawing.".($set['format'] ?? 'dxf');
    }

    public function testBlocksLinesInSpaceAndFacesOnTheirLayers(): void
    {
        $catalogue = $this->post('/handover/catalogues', [
            'name' => 'codes', 'types' => [['code' => 'HEAP', 'colour' => '#2e8b57', 'style' => 'dashed']],
        ])['catalogue'];
        $mapping = [['from' => 'KERB', 'to' => 'C-ROAD-KERB', 'colour' => 'violet', 'style' => 'dotted']];
        $file = $this->write($this->set(['catalogue' => $catalogue, 'mapping' => $mapping]));
        $script = <<<'PY'
            import sys, json, ezdxf
            d = ezdxf.readfile(sys.argv[1]); a = d.audit(); m = d.modelspace()
            marks = [{t.dxf.tag: t.dxf.text for t in i.attribs} | {"at": tuple(i.dxf.insert)} for i in m.query("INSERT")]
            lines = {}
            for p in m.query("POLYLINE"): lines.setdefault(p.dxf.layer, []).append([tuple(v.dxf.location) for v in p.vertices])
            print(json.dumps({"errors": [str(e) for e in a.errors], "fixes": len(a.fixes), "version": d.dxfversion,
              "units": d.header["$INSUNITS"],
              "marks": marks, "lines": lines, "faces": len(m.query("3DFACE")), "contours": len(m.query("LWPOLYLINE")),
              "layers": {l.dxf.name: [l.dxf.color, l.dxf.linetype] for l in d.layers}, "types": [t.dxf.name for t in d.linetypes]}))
            PY;
        $json = (new Process(['/usr/bin/python3', '-c', $script, $file]))->mustRun()->getOutput();
        $seen = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        self::assertSame([[], 0, 'AC1015', 6], [$seen['errors'], $seen['fixes'], $seen['version'], $seen['units']]);
        $points = $this->get('/points')['points'];
        self::assertCount(\count($points), $seen['marks']);
        foreach ($points as $i => $p) {
            $mark = $seen['marks'][$i];
            self::assertEquals([$p['name'], $p['code'], \sprintf('%.3F', $p['h'])], [$mark['NAME'], $mark['CODE'], $mark['HEIGHT']]);
            self::assertEqualsWithDelta([$p['e'], $p['n'], $p['h']], $mark['at'], 1e-6);
        }
        $surface = $this->get('/terrain')['surfaces'][0];
        self::assertSame([$surface['triangles'], $surface['contourCount']], [$seen['faces'], $seen['contours']]);
        self::assertSame([3, 'DASHED'], $seen['layers']['HEAP'], 'As the code table says: green, dashed.');
        self::assertSame([6, 'DOTTED'], $seen['layers']['C-ROAD-KERB'], 'As the mapping says.');
        self::assertArrayNotHasKey('KERB', $seen['layers']);
        self::assertCount(2, $seen['lines']['C-ROAD-KERB']);
        // Lines in space: the heights the designer gave, to the micrometre.
        $heights = array_column($seen['lines']['C-ROAD-KERB'][0], 2);
        self::assertEqualsWithDelta(230.4 + 0.012 * -34.0, $heights[0], 0.0006);
        self::assertGreaterThan(1, \count(array_unique($heights)));
        self::assertSame($seen['lines']['WORKS-LIMIT'][0][0], $seen['lines']['WORKS-LIMIT'][0][4], 'It closes.');
        self::assertContains('DASHED', $seen['types']);
    }

    /** Two kerbs measured at once and a lawn, hydrants with their symbol: lines by the codes, signs as blocks; ezdxf reads them. */
    public function testLinesFromCodesAndSymbols(): void
    {
        $this->accept('codes.csv', <<<'CSV'
            point,easting [m],northing [m],orthometric height [m],code,line
            K1,493100,6028000,100,KERB,1 start
            K2,493100,6028006,100,KERB,2 start
            K3,493109,6028000,101,KERB,1
            K4,493109,6028006,101,KERB,2 end
            K5,493118,6028000,102,KERB,1 end
            L1,493130,6028000,100,LAWN start,
            L2,493140,6028000,100,LAWN,
            L3,493140,6028010,100,LAWN end,
            H1,493150,6028000,100,HYD,
            H2,493151,6028000,100,VALVE,
            K9,493160,6028000,100,KERB,1 start
            CSV);
        $catalogue = $this->post('/handover/catalogues', ['name' => 'codes', 'types' => [
            ['code' => 'KERB', 'kind' => 'line', 'style' => 'dashed'], ['code' => 'LAWN', 'kind' => 'area'],
            ['code' => 'HYD', 'symbol' => 'circle'], ['code' => 'VALVE', 'symbol' => 'cross'],
        ]])['catalogue'];
        $work = $this->get("/handover/catalogues/$catalogue/lines");
        self::assertSame(['KERB 1 at K9 is a line of 1 point'], $work['faults']);
        $seen = array_map(static fn (array $l): array => [$l['code'], $l['number'], $l['points'], $l['closed']], $work['lines']);
        self::assertSame([['KERB', '2', 2, false], ['KERB', '1', 3, false], ['LAWN', '', 3, true]], $seen);
        self::assertEqualsWithDelta([9.0, 18.0, 20.0 + 10.0 * \M_SQRT2], array_column($work['lines'], 'length'), 1e-9);
        $file = $this->write([
            'name' => 'lines', 'roles' => ['surveyed'], 'codes' => ['KERB', 'LAWN', 'HYD', 'VALVE', 'LAWN start', 'LAWN end'],
            'catalogue' => $catalogue, 'codeLines' => true,
        ]);
        $script = <<<'PY'
            import sys, json, ezdxf
            d = ezdxf.readfile(sys.argv[1]); a = d.audit(); m = d.modelspace()
            signs = {i.attribs[0].dxf.text: [i.dxf.name, i.dxf.xscale] for i in m.query("INSERT")}
            drawn = {b.name: sorted(e.dxftype() for e in b) for b in d.blocks if b.name.startswith("MARK")}
            lines = [[p.dxf.layer, [list(v.dxf.location) for v in p.vertices]] for p in m.query("POLYLINE")]
            print(json.dumps({"wrong": len(a.errors) + len(a.fixes), "signs": signs, "drawn": drawn, "lines": lines}))
            PY;
        $json = (new Process(['/usr/bin/python3', '-c', $script, $file]))->mustRun()->getOutput();
        $cad = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        self::assertSame(0, $cad['wrong']);
        self::assertSame([['MARK_CIRCLE', 0.5], ['MARK_CROSS', 0.5]], [$cad['signs']['H1'], $cad['signs']['H2']]);
        self::assertSame('MARK', $cad['signs']['K1'][0]);
        self::assertSame(['CIRCLE', 'POINT'], $cad['drawn']['MARK_CIRCLE']);
        self::assertSame(['LINE', 'LINE', 'POINT'], $cad['drawn']['MARK_CROSS']);
        self::assertSame(['KERB', 'KERB', 'LAWN'], array_column($cad['lines'], 0));
        self::assertEquals([[493100, 6028006, 100], [493109, 6028006, 101]], $cad['lines'][0][1]);
        self::assertCount(4, $cad['lines'][2][1], 'The lawn is closed.');
    }

    public function testLandXmlOfPointsLinesSurfacesAndAlignments(): void
    {
        $file = $this->write($this->set(['name' => 'xml', 'format' => 'xml']));
        $xml = simplexml_load_string(str_replace('xmlns=', 'ns=', (string) file_get_contents($file)));
        self::assertNotFalse($xml);
        self::assertCount(\count($this->get('/points')['points']), $xml->CgPoints->CgPoint);
        self::assertSame('25830', (string) $xml->CoordinateSystem['epsgCode']);
        self::assertCount(3, $xml->PlanFeatures->PlanFeature);
        self::assertCount($this->get('/terrain')['surfaces'][0]['triangles'], $xml->Surfaces->Surface->Definition->Faces->F);
        self::assertSame(HaulRoad::NAME, (string) $xml->Alignments->Alignment['name']);
        // The alignment comes back as it was designed: line, clothoids and arc of the same lengths.
        $designed = simplexml_load_string(str_replace('xmlns=', 'ns=', (new HaulRoad())->design()));
        self::assertNotFalse($designed);
        $read = static fn (\SimpleXMLElement $x): array => array_map(
            static fn (\SimpleXMLElement $e): string => $e->getName(),
            iterator_to_array($x->Alignments->Alignment->CoordGeom->children(), false),
        );
        self::assertSame($read($designed), $read($xml));
        $length = static fn (\SimpleXMLElement $x): float => (float) $x->Alignments->Alignment['length'];
        self::assertEqualsWithDelta($length($designed), $length($xml), 0.01);
    }

    public function testLayersAreShownBeforeAndNothingIsRefused(): void
    {
        $layers = $this->post('/handover/cad/layers', $this->set([]));
        $counts = array_column($layers['layers'], 'count', 'name');
        self::assertSame([2, 1], [$counts['KERB'], $counts['WORKS-LIMIT']]);
        self::assertSame($this->get('/terrain')['surfaces'][0]['triangles'], $layers['faces']);
        // What lies in the west half of the heap: fewer points, and the kerbs, that have corners there, whole.
        $corner = static fn (float $e, float $n): array => ['e' => Heap::EAST + $e, 'n' => Heap::NORTH + $n];
        $west = [$corner(-90.0, -90.0), $corner(0.0, -90.0), $corner(0.0, 90.0), $corner(-90.0, 90.0)];
        $half = $this->post('/handover/cad/layers', $this->set(['within' => $west]));
        $inside = array_filter($this->get('/points')['points'], static fn (array $p): bool => $p['e'] < Heap::EAST);
        self::assertSame(\count($inside), $half['points']);
        self::assertSame(2, array_column($half['layers'], 'count', 'name')['KERB']);
        $this->post('/handover/cad', ['name' => 'two', 'within' => \array_slice($west, 0, 2)], 422);
        $id = $this->post('/handover/cad', ['name' => 'none', 'roles' => ['control']])['set'];
        $job = $this->job('/handover', ['kind' => 'cad', 'surfaces' => [$id]]);
        self::assertStringContainsString('nothing is chosen for this drawing', (string) $job['error']);
        $refused = $this->post('/handover/cad', ['name' => 'x', 'mapping' => [['from' => 'A', 'colour' => 'mud']]], 422);
        self::assertSame('/mapping/0/colour', $refused['errors'][0]['pointer']);
    }
}
