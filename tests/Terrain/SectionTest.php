<?php

declare(strict_types=1);

namespace App\Tests\Terrain;

use App\Tests\ApiTestCase;
use Demo\HaulRoad;
use Demo\Heap;
use Mensura\Exchange\Dxf\DxfReader;
use Smalot\PdfParser\Parser;

/** Surfaces cut along lines and alignments, through the interface's own requests. */
final class SectionTest extends ApiTestCase
{
    private int $may;

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept(Heap::MAY, (new Heap())->survey(false));
        $this->may = $this->post('/terrain/surfaces', ['name' => 'May', 'roles' => ['surveyed'], 'interval' => 1], 202)['surface'];
    }

    /** A line over the heap: heights are those of the shape it was drawn from, within what points 2.6 m apart can know. */
    public function testALineOverTheHeap(): void
    {
        $line = [[Heap::EAST - 15.0, Heap::NORTH - 3.0], [Heap::EAST + 15.0, Heap::NORTH - 3.0]];
        $body = ['name' => 'over', 'surfaces' => [$this->may], 'line' => $line, 'offset' => 1.5, 'every' => 10, 'half' => 5];
        self::assertSame(['number' => 1], $this->job('/terrain/sections', $body)['outcome']);
        [$view] = $this->get('/terrain')['sections'];
        self::assertEqualsWithDelta(30.0, $view['length'], 1e-9);
        self::assertSame([4, []], [$view['crosses'], $view['stale']]);
        $d = $this->get('/terrain/sections/1');
        $squares = $count = 0;
        foreach ($d['surfaces'][0]['pieces'][0] as [$station, $h]) {
            $squares += ($h - Heap::height(Heap::EAST - 15.0 + $station, Heap::NORTH - 3.0, false)) ** 2;
            ++$count;
        }
        self::assertGreaterThan(10, $count);
        self::assertLessThan(0.45, sqrt($squares / $count));
        self::assertSame($view['points'], \count($d['points']));
        foreach ($d['points'] as $p) {
            self::assertLessThanOrEqual(1.5, abs($p['offset']));
        }
        [$left, $right] = [$d['crosses'][1]['n'][0], $d['crosses'][1]['n'][1]];
        self::assertEqualsWithDelta([Heap::NORTH + 2.0, Heap::NORTH - 8.0], [$left, $right], 1e-9, 'From left to right of the way east.');
        self::assertEqualsWithDelta(-5.0, $d['crosses'][1]['surfaces'][0][0][0][0], 1e-9);

        // What it is cut of changes: it is stale, says so, and is cut again under its number.
        $row = \sprintf('X,%.1f,%.1f,240,HEAP', Heap::EAST, Heap::NORTH - 3.0);
        $this->accept('one.csv', "point,easting [m],northing [m],ellipsoidal height [m],code\n$row\n");
        self::assertNotSame([], $this->get('/terrain')['sections'][0]['stale']);
        self::assertStringContainsString('is stale', (string) $this->job('/terrain/sections', ['name' => 'other'] + $body)['error']);
        $this->job('/recompute');
        $again = $this->get('/terrain')['sections'];
        self::assertSame([1, 2, []], [\count($again), $again[0]['run'], $again[0]['stale']]);
        self::assertEqualsWithDelta(240.0, $again[0]['high'], 0.01);
    }

    public function testAnAlignmentOfAFile(): void
    {
        $this->accept(HaulRoad::FILE, (new HaulRoad())->design());
        [$road] = $this->get('/terrain')['alignments'];
        self::assertSame([HaulRoad::NAME, HaulRoad::FILE], [$road['name'], $road['fileName']]);
        self::assertEqualsWithDelta(198.7, $road['length'], 1e-5);
        self::assertSame([], $this->get('/checks')['designs'], 'It has no faces to compare with.');
        $body = ['name' => 'road', 'surfaces' => [$this->may], 'file' => $road['file'], 'alignment' => $road['name'], 'every' => 25];
        $this->job('/terrain/sections', $body);
        [$view] = $this->get('/terrain')['sections'];
        self::assertSame([8, HaulRoad::NAME], [$view['crosses'], $view['alignment']]);
        self::assertNotNull($view['low'], 'It runs into the heap.');
        $none = $this->job('/terrain/sections', ['name' => 'n', 'alignment' => 'another'] + $body);
        self::assertStringContainsString('holds no alignment "another"', (string) $none['error']);

        foreach (['section-pdf', 'section-dxf'] as $kind) {
            self::assertSame('done', $this->job('/handover', ['kind' => $kind, 'surfaces' => [1]])['state']);
        }
        $files = array_column($this->get('/handover')['exports'], null, 'kind');
        self::assertTrue($files['section-pdf']['holds'] && $files['section-dxf']['holds']);
        $text = (new Parser())->parseContent($this->download('/handover/'.$files['section-pdf']['id'].'/file'))->getText();
        self::assertMatchesRegularExpression('/lengths 1 : \d+, heights 1 : \d+/', $text);
        $path = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($path, $this->download('/handover/'.$files['section-dxf']['id'].'/file'));
        $texts = [];
        foreach (DxfReader::entities($path) as $entity) {
            if ('text' === $entity->kind) {
                $texts[] = $entity->text;
            }
        }
        unlink($path);
        self::assertContains('station 175.000', $texts);

        // Other heights leave an alignment where it is in plan; another system does not, and it says so.
        $heights = ['heights' => 'geoid', 'geoid' => 'installed:egm96_15.gtx'];
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25830'] + $heights, 200);
        $recomputed = $this->job('/recompute');
        self::assertSame('done', $recomputed['state'], (string) $recomputed['error']);
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829'] + $heights, 200);
        self::assertStringContainsString('bring the alignment in again', (string) $this->job('/recompute')['error']);
    }

    public function testWhatCannotBeCut(): void
    {
        $body = ['name' => 'x', 'surfaces' => [$this->may]];
        self::assertStringContainsString('draw it, or choose an alignment', $this->post('/terrain/sections', $body, 422)['detail']);
        $this->post('/terrain/sections', ['surfaces' => []] + $body, 422);
        $still = ['line' => [[1, 1], [1, 1]]] + $body;
        self::assertStringContainsString('has no length', (string) $this->job('/terrain/sections', $still)['error']);
        $long = ['line' => [[0, 0], [5000, 0]], 'every' => 1] + $body;
        self::assertStringContainsString('at most 1000', (string) $this->job('/terrain/sections', $long)['error']);
        $beside = ['line' => [[0, 0], [10, 0]]] + $body;
        $this->job('/terrain/sections', $beside);
        self::assertNull($this->get('/terrain')['sections'][0]['low']);
        self::assertStringContainsString('there is a section "x" already', (string) $this->job('/terrain/sections', $beside)['error']);
        $this->get('/terrain/sections/9', 404);
    }
}
