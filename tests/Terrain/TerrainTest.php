<?php

declare(strict_types=1);

namespace App\Tests\Terrain;

use App\Tests\ApiTestCase;
use Demo\Generator;
use Demo\TruthModel;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Surface\SurfaceBuilder;

final class TerrainTest extends ApiTestCase
{
    /** Volume of the pit against an elevation: the surface against the truth model, integrated on a fine grid. */
    public function testPitVolumeAgreesWithTheTruth(): void
    {
        $this->accept('pit.csv', (new Generator(new TruthModel()))->files()['pit-topography.csv']);
        $points = $this->get('/points')['points'];
        $lines = [];
        foreach (['CREST', 'TOE'] as $code) {
            $names = array_column(array_filter($points, static fn (array $p): bool => $p['code'] === $code), 'name');
            $lines[] = ['role' => 'breakline', 'name' => $code, 'points' => [...$names, $names[0]], 'vertices' => []];
        }
        $lines[] = [
            'role' => 'boundary',
            'name' => 'limit',
            'points' => [],
            'vertices' => [[493536, 6028006], [493704, 6028006], [493704, 6028112], [493536, 6028112]],
        ];
        $started = $this->post('/terrain/surfaces', ['name' => 'Pit', 'roles' => ['surveyed'], 'lines' => $lines, 'interval' => 0.5], 202);
        $id = $started['surface'];
        self::assertSame('done', $this->get("/jobs/{$started['job']}")['state']);
        $this->job('/terrain/volumes', ['name' => 'pit', 'surface' => $id, 'against' => 'elevation', 'elevation' => 225.0]);
        ['surfaces' => [$surface], 'volumes' => [$volume]] = $this->get('/terrain');
        self::assertEqualsWithDelta(168.0 * 106.0, $surface['planArea'], 1e-3);
        $cut = $fill = 0.0;
        for ($e = 493536.125; $e < 493704.0; $e += 0.25) {
            for ($n = 6028006.125; $n < 6028112.0; $n += 0.25) {
                $d = TruthModel::ground($e, $n) - 225.0;
                $cut += max(0.0, $d) * 0.0625;
                $fill += max(0.0, -$d) * 0.0625;
            }
        }
        // Eight-metre spot heights of an undulating field: one per cent.
        self::assertEqualsWithDelta($cut, $volume['cut'], 0.01 * $cut);
        self::assertEqualsWithDelta($fill, $volume['fill'], 0.01 * $fill);
        self::assertEqualsWithDelta($volume['cut'] - $volume['fill'], $volume['net'], 1e-9);
        $contours = $this->get("/terrain/surfaces/$id/contours");
        self::assertEquals(
            array_column($contours, 'h'),
            array_map(static fn (float $h): float => round($h / 0.5) * 0.5, array_column($contours, 'h')),
        );
    }

    public function testMeshGoesToBytesAndBack(): void
    {
        $tin = (new SurfaceBuilder(
            [0.0, 10.5, 0.0, 10.0, 4.0], [0.0, 0.0, 10.0, 10.0, 5.0], [1.0, 2.0, 3.0, 4.0, 9.0],
            ['a', 'b', 'c', 'd', 'e'],
        ))->build();
        $back = MeshCodec::decode(MeshCodec::encode($tin));
        self::assertSame($tin->statistics(), $back->statistics());
        foreach ($back->opposite as $h => $o) {
            self::assertTrue($o < 0 || $back->opposite[$o] === $h);
        }
        self::assertCount(
            \count(array_filter($tin->opposite, static fn (int $o): bool => $o < 0)),
            array_filter($back->opposite, static fn (int $o): bool => $o < 0),
        );
    }

    public function testWhatCannotBeBuiltIsRefusedBeforeItIsKept(): void
    {
        $this->accept('p.csv', "point,easting [m],northing [m],height [m],code\nP1,0,0,1,A\nP2,10,0,1,A\nP3,10,10,1,B\nP4,0,10,1,B\n");
        $base = ['name' => 'S', 'roles' => ['surveyed'], 'interval' => 0.5];
        self::assertStringContainsString(
            'the selection holds 2 points',
            $this->post('/terrain/surfaces', ['codes' => ['A']] + $base, 422)['detail'],
        );
        self::assertStringContainsString('runs through PX, which is not a point', $this->post(
            '/terrain/surfaces',
            ['lines' => [['role' => 'breakline', 'name' => 'l', 'points' => ['P1', 'PX'], 'vertices' => []]]] + $base,
            422,
        )['detail']);
        self::assertStringContainsString('is breakline, boundary or void', $this->post(
            '/terrain/surfaces',
            ['lines' => [['role' => 'wall', 'name' => 'l', 'points' => ['P1'], 'vertices' => []]]] + $base,
            422,
        )['detail']);
        self::assertStringContainsString('interval', $this->post('/terrain/surfaces', ['interval' => 0] + $base, 422)['detail']);
        self::assertSame([], $this->get('/terrain')['surfaces']);
        // A boundary that crosses itself is found when it is built; the error names the place, nothing is computed.
        $job = $this->get('/jobs/'.$this->post(
            '/terrain/surfaces',
            ['lines' => [['role' => 'boundary', 'name' => 'bow', 'points' => [], 'vertices' => [[1, 1], [9, 9], [9, 1], [1, 9]]]]] + $base,
            202,
        )['job']);
        self::assertSame('failed', $job['state']);
        self::assertStringContainsString('bow: this boundary crosses itself at 5.000, 5.000', $job['error']);
        self::assertFalse($this->get('/terrain')['surfaces'][0]['computed']);
        self::assertStringContainsString('there is a surface "S" already', $this->post('/terrain/surfaces', $base, 422)['detail']);
        $id = $this->get('/terrain')['surfaces'][0]['id'];
        $job = $this->job('/terrain/volumes', ['name' => 'v', 'surface' => $id, 'against' => 'rim']);
        self::assertStringContainsString('compute the surface first', (string) $job['error']);
    }

    public function testLeavingAPointOut(): void
    {
        $this->accept(
            'p.csv',
            "point,easting [m],northing [m],height [m],code\nP1,0,0,1,A\nP2,10,0,1,A\nP3,10,10,1,B\nP4,0,10,1,B\nPILLAR,5,5,1.2,P\n",
        );
        $this->post('/terrain/surfaces', ['name' => 'S', 'roles' => ['surveyed'], 'interval' => 0.5, 'exclude' => ['PILLAR']], 202);
        $surface = $this->get('/terrain')['surfaces'][0];
        self::assertSame([4, 1.0], [$surface['points'], (float) $surface['hMax']]);
    }
}
