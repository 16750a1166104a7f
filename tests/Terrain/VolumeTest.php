<?php

declare(strict_types=1);

namespace App\Tests\Terrain;

use App\Tests\ApiTestCase;
use Demo\Heap;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Surface\Volume;
use Smalot\PdfParser\Parser;

/** Surfaces from selections and the volumes between them, through the interface's own requests, on the heap of the demo. */
final class VolumeTest extends ApiTestCase
{
    private int $may;
    private int $june;

    protected function setUp(): void
    {
        parent::setUp();
        $heap = new Heap();
        $this->accept(Heap::MAY, $heap->survey(false));
        $this->accept(Heap::JUNE, $heap->survey(true));
        $this->may = $this->surface('May', 'HA-*');
        $this->june = $this->surface('June', 'HB-*', ['exclude' => [Heap::PEG]]);
    }

    /** Against the two shapes the points were drawn from, integrated on a grid of 20 cm inside a boundary both surveys cover. */
    public function testTwoSurveysAgreeWithTheTruth(): void
    {
        $ring = [];
        for ($i = 0; $i < 24; ++$i) {
            $ring[] = [Heap::EAST + 18.0 * cos(\M_PI * $i / 12), Heap::NORTH + 18.0 * sin(\M_PI * $i / 12)];
        }
        $job = $this->job('/terrain/volumes', [
            'name' => 'May to June', 'surface' => $this->june, 'against' => 'surface', 'other' => $this->may, 'boundary' => $ring,
            'slice' => 0.5,
        ]);
        self::assertSame(['number' => 1], $job['outcome']);
        [$v] = $this->get('/terrain')['volumes'];
        $cut = $fill = 0.0;
        for ($e = -17.9; $e < 18.0; $e += 0.2) {
            for ($n = -17.9; $n < 18.0; $n += 0.2) {
                if (hypot($e, $n) < 17.9) {
                    [$x, $y] = [Heap::EAST + $e, Heap::NORTH + $n];
                    $d = Heap::height($x, $y, true) - Heap::height($x, $y, false);
                    $cut += 0.04 * max(0.0, $d);
                    $fill += 0.04 * max(0.0, -$d);
                }
            }
        }
        self::assertGreaterThan(200.0, $cut);
        self::assertGreaterThan(100.0, $fill);
        // Points every 2.6 m round off edges and feet of the heap.
        self::assertEqualsWithDelta($cut, $v['cut'], 0.08 * $cut);
        self::assertEqualsWithDelta($fill, $v['fill'], 0.15 * $fill);
        foreach (['depths', 'elevations'] as $slices) {
            self::assertEqualsWithDelta($v['cut'], array_sum(array_column($v[$slices], 'cut')), 1e-7 * $v['cut']);
            self::assertEqualsWithDelta($v['fill'], array_sum(array_column($v[$slices], 'fill')), 1e-7 * $v['fill']);
        }
        $isopach = Volume::againstElevation(MeshCodec::decode($this->download('/terrain/volumes/1/mesh')), 0.0);
        self::assertEqualsWithDelta($v['net'], $isopach['net'], 1e-7 * $v['cut']);
        self::assertContains(0, array_column($this->get('/terrain/volumes/1/contours'), 'h'));
    }

    public function testHeapAboveAndHollowBelowTheRim(): void
    {
        $this->job('/terrain/volumes', ['name' => 'rim', 'surface' => $this->may, 'against' => 'rim']);
        [$v] = $this->get('/terrain')['volumes'];
        self::assertSame('the surface through its own edge', $v['comparedTo']);
        self::assertGreaterThan(1000.0, $v['cut']);
        self::assertLessThan(0.05 * $v['cut'], $v['fill']);
        $clay = array_values(array_filter($v['haul'], static fn (array $h): bool => 'sandy clay' === $h['material']))[0];
        self::assertEqualsWithDelta(1.25 * $v['cut'], $clay['looseCut'], 1e-9);
        self::assertSame((int) ceil(1.25 * ($v['cut'] - $v['fill'] / 0.9) / 12.0), $clay['loads']);
        // Other materials need no volume to be computed again.
        $mine = ['name' => 'our gravel', 'isNative' => true, 'swell' => 1.1, 'shrink' => 0.95, 'density' => 2];
        $this->call('PUT', '/terrain/materials', ['materials' => [$mine], 'capacity' => 10], 200);
        $after = $this->get('/terrain');
        self::assertSame([1, []], [$after['volumes'][0]['run'], $after['volumes'][0]['stale']]);
        self::assertEqualsWithDelta(1.1 * $v['cut'], $after['volumes'][0]['haul'][0]['looseCut'], 1e-9);
        self::assertStringContainsString('between 1 and 3', $this->call(
            'PUT', '/terrain/materials', ['materials' => [['swell' => 0.5] + $mine], 'capacity' => 10], 422,
        )['detail']);
        $this->undoLast();
        self::assertCount(4, $this->get('/terrain')['materials']);
    }

    public function testNothingIsPutOverAnother(): void
    {
        $this->job('/terrain/volumes', ['name' => 'rim', 'surface' => $this->may, 'against' => 'rim']);
        $same = $this->job('/terrain/volumes', ['name' => 'rim', 'surface' => $this->june, 'against' => 'rim']);
        self::assertStringContainsString('there is a volume "rim" already; it stays as it is', (string) $same['error']);
        $this->job('/terrain/volumes', ['name' => 'rim', 'surface' => $this->may, 'against' => 'rim', 'number' => 1, 'slice' => 0.25]);
        [$v] = $this->get('/terrain')['volumes'];
        self::assertSame([1, 2, 0.25], [\count($this->get('/terrain')['volumes']), $v['run'], $v['slice']]);
        $itself = ['name' => 'x', 'surface' => $this->may, 'against' => 'surface', 'other' => $this->may];
        self::assertStringContainsString('is the surface itself', $this->post('/terrain/volumes', $itself, 422)['detail']);
        $far = ['boundary' => [[0, 0], [1, 0], [1, 1]], 'against' => 'rim'] + $itself;
        self::assertStringContainsString('holds nothing of the surface', (string) $this->job('/terrain/volumes', $far)['error']);
        [$e, $n] = [Heap::EAST, Heap::NORTH];
        $bow = ['boundary' => [[$e - 5, $n - 5], [$e + 5, $n + 5], [$e + 5, $n - 5], [$e - 5, $n + 5]]] + $far;
        self::assertStringContainsString('crosses itself', (string) $this->job('/terrain/volumes', $bow)['error']);
        self::assertStringContainsString('there is no such volume', strtolower($this->post(
            '/terrain/volumes', ['name' => 'y', 'surface' => $this->may, 'against' => 'rim', 'number' => 9], 404,
        )['detail']));
    }

    /** The peg 20 cm proud: in or out, the surface follows at once, and what rests on it is stale until it is computed anew. */
    public function testAPointGoesInAndOut(): void
    {
        $this->job('/terrain/volumes', ['name' => 'rim', 'surface' => $this->june, 'against' => 'rim']);
        $before = $this->get('/terrain')['volumes'][0]['cut'];
        $this->surface('June', 'HB-*', [], $this->june);
        self::assertSame(['newer surface June'], $this->stale()['volume:1'] ?? []);
        $this->job('/recompute');
        self::assertGreaterThan($before, $this->get('/terrain')['volumes'][0]['cut']);
        $in = ['include' => [Heap::PEG], 'codes' => ['NONE']];
        $preview = $this->post('/terrain/preview', ['name' => 'p', 'roles' => ['surveyed']] + $in);
        self::assertSame(1, $preview['points']);
        self::assertStringContainsString('holds 1 points', $preview['refusal']);
    }

    public function testASurfaceAsItWouldBe(): void
    {
        [$w, $s, $e, $n] = [Heap::EAST - 9, Heap::NORTH - 9, Heap::EAST + 9, Heap::NORTH + 9];
        $area = [[$w, $s], [$e, $s], [$e, $n], [$w, $n]];
        $ask = ['name' => 'p', 'roles' => ['surveyed'], 'pattern' => 'HA-*', 'areas' => [$area], 'interval' => 0.5];
        $preview = $this->post('/terrain/preview', $ask);
        $mesh = MeshCodec::decode((string) base64_decode($preview['mesh'], true));
        self::assertSame($preview['points'], \count($mesh->x));
        self::assertSame($preview['triangles'], $mesh->triangleCount());
        self::assertLessThanOrEqual(Heap::EAST + 9.0, max($mesh->x));
        $smooth = $this->post('/terrain/preview', ['smooth' => true] + $ask);
        $corners = static fn (array $p): int => array_sum(array_map(
            static fn (array $level): int => array_sum(array_map(\count(...), $level['lines'])), $p['contours'],
        ));
        self::assertGreaterThan(2 * $corners($preview), $corners($smooth));
        $ofMay = static fn (array $p): bool => str_starts_with($p['name'], 'HA-');
        $names = array_column(array_filter($this->get('/points')['points'], $ofMay), 'name');
        $cross = [
            ['role' => 'breakline', 'name' => 'a', 'points' => [$names[0], $names[150]], 'vertices' => []],
            ['role' => 'breakline', 'name' => 'b', 'points' => [$names[80], $names[100]], 'vertices' => []],
        ];
        $refused = $this->post('/terrain/preview', ['lines' => $cross, 'pattern' => 'HA-*', 'areas' => []] + $ask);
        if (null !== $refused['refusal']) {
            self::assertStringContainsString('crosses', $refused['refusal']);
            $mean = $this->post('/terrain/preview', ['lines' => $cross, 'areas' => [], 'crossing' => 'mean'] + $ask);
            self::assertNull($mean['refusal']);
            self::assertStringContainsString('their mean is used, as chosen', implode("\n", $mean['warnings']));
        }
        $bad = $this->post('/terrain/preview', ['areas' => [[[1, 2]]]] + $ask, 422);
        self::assertStringContainsString('/areas/0', $bad['detail']);
        self::assertStringContainsString('three corners or more', $bad['detail']);
    }

    public function testTheReportHoldsItsFiguresAndFollowsTheMaterials(): void
    {
        $this->job('/terrain/volumes', ['name' => 'May to June', 'surface' => $this->june, 'against' => 'surface', 'other' => $this->may]);
        self::assertSame('done', $this->job('/handover', ['kind' => 'volume-pdf', 'surfaces' => [1]])['state']);
        [$file] = $this->get('/handover')['exports'];
        self::assertTrue($file['holds']);
        self::assertStringEndsWith('-volume-may-to-june.pdf', $file['name']);
        $text = (new Parser())->parseContent($this->download("/handover/$file[id]/file"))->getText();
        foreach (['Cut and fill', 'Sections', 'By depth', 'By elevation', 'To carry', 'gravel, brought in', 'Input versions'] as $part) {
            self::assertStringContainsString($part, $text);
        }
        $mine = ['name' => 'ours', 'isNative' => true, 'swell' => 1.1, 'shrink' => 0.95, 'density' => 2];
        $this->call('PUT', '/terrain/materials', ['materials' => [$mine], 'capacity' => 10], 200);
        self::assertSame(['export:volume-pdf:1' => ['the materials changed']], $this->stale());
        $none = $this->job('/handover', ['kind' => 'volume-pdf', 'surfaces' => [7]]);
        self::assertStringContainsString('choose a volume', (string) $none['error']);
    }

    /** @param array<string, mixed> $more */
    private function surface(string $name, string $pattern, array $more = [], ?int $existing = null): int
    {
        $body = $more + [
            'name' => $name, 'roles' => ['surveyed'], 'codes' => [Heap::CODE], 'pattern' => $pattern, 'maxEdge' => 8, 'interval' => 1,
        ];

        return null === $existing ? $this->post('/terrain/surfaces', $body, 202)['surface']
            : $this->call('PUT', "/terrain/surfaces/$existing", $body, 202)['surface'];
    }
}
