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
        $id = $this->post('/handover/cad', ['name' => 'none', 'roles' => ['control']])['set'];
        $job = $this->job('/handover', ['kind' => 'cad', 'surfaces' => [$id]]);
        self::assertStringContainsString('nothing is chosen for this drawing', (string) $job['error']);
        $refused = $this->post('/handover/cad', ['name' => 'x', 'mapping' => [['from' => 'A', 'colour' => 'mud']]], 422);
        self::assertSame('/mapping/0/colour', $refused['errors'][0]['pointer']);
    }
}
