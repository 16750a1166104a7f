<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Clouds\MadeClouds;
use App\Clouds\TileArchive;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Tests\ApiTestCase;
use Demo\Street;
use Demo\Yard;

/** Clouds: made of received ones, cropped, thinned, classified, looked at by tiles, handed over, and made again. */
final class CloudsTest extends ApiTestCase
{
    /**
     * @param array<string, mixed> $more
     *
     * @return array<string, mixed> the job
     */
    private function make(string $name, array $more, string $state = 'done'): array
    {
        $job = $this->job('/clouds', ['name' => $name] + $more);
        self::assertSame($state, $job['state'], (string) ($job['error'] ?? ''));

        return $job;
    }

    /** Nine columns and rows of points, a metre apart, a tenth of a metre higher each to the east. */
    private function square(): int
    {
        $lines = '';
        for ($i = 0; $i < 81; ++$i) {
            $lines .= \sprintf("%.3f %.3f %.3f\n", 493000.0 + $i % 9, 6028000.0 + intdiv($i, 9), 200.0 + 0.1 * ($i % 9));
        }

        return $this->accept('square.xyz', $lines)['id'];
    }

    /** By hand: of 9 x 9 points a box of 5 x 9 is kept, outside of it 4 x 9. */
    public function testACloudIsCroppedAndThinnedAndCounted(): void
    {
        $file = $this->square();
        self::assertSame(81, $this->get('/clouds')['files'][0]['points']);
        $ring = [[493000.0 - 0.5, 6028000.0 - 0.5], [493004.5, 6027999.5], [493004.5, 6028008.5], [492999.5, 6028008.5]];
        $this->make('west', ['files' => [$file], 'crop' => $ring]);
        $this->make('east', ['files' => [$file], 'crop' => $ring, 'outside' => true]);
        // Cubes of 3 m are counted from 0: 493000 and 6028000 each begin at a remainder of one.
        $this->make('few', ['files' => [$file], 'thin' => 3.0]);
        $this->make('both', ['clouds' => [1, 2]]);
        [$west, $east, $few, $both] = $this->get('/clouds')['clouds'];

        self::assertSame([45, 36, 16, 81], [$west['points'], $east['points'], $few['points'], $both['points']]);
        self::assertEqualsWithDelta([493000.0, 6028000.0, 200.0, 493004.0, 6028008.0, 200.4], $west['extent'], 1e-9);
        self::assertEqualsWithDelta([1.0, 1.0], [$west['density'], $west['spacing']], 1e-9);
        self::assertSame(['cropped'], $west['steps']);
        self::assertSame(['cut out'], $east['steps']);
        self::assertSame('west, east', $both['of']);
        self::assertSame([['0' => 45], []], [$west['classes'], $west['stale']]);
        // Made anew under its number, what rests on it is stale and then made again with it.
        $this->make('west', ['number' => 1, 'files' => [$file]]);
        $clouds = $this->get('/clouds')['clouds'];
        self::assertSame([81, 2], [$clouds[0]['points'], $clouds[0]['run']]);
        self::assertStringStartsWith('newer cloud west', implode(' ', $clouds[3]['stale']));
        self::assertStringContainsString('is stale', (string) $this->make('on a stale one', ['clouds' => [4]], 'failed')['error']);
    }

    public function testAScanIsClassifiedLookedAtAndHandedOver(): void
    {
        $file = $this->bring(Yard::SCAN, (new Yard())->scan(), 202)['id'];
        $this->job("/intake/$file/accept");
        $this->make('yard', ['files' => [$file], 'noise' => true, 'ground' => true]);
        $this->make('ground', ['clouds' => [1], 'classes' => [2]]);
        [$yard, $ground] = $this->get('/clouds')['clouds'];

        // Dust is noise; what stands on the ground is none of it. The truth is the scene's: 60 points of dust.
        self::assertSame(60, $yard['classes']['7']);
        self::assertSame($yard['classes']['2'], $ground['points']);
        self::assertSame(['2' => $ground['points']], $ground['classes']);
        self::assertLessThan(232.0, $ground['extent'][5]);
        self::assertTrue($yard['hasColours']);
        self::assertTrue($yard['hasIntensities']);

        $set = json_decode($this->download("/clouds/1/tiles/{$yard['tiles']}/tileset.json"), true, 64, \JSON_THROW_ON_ERROR);
        self::assertSame($yard['points'], $set['extras']['points']);
        $tile = $this->download("/clouds/1/tiles/{$yard['tiles']}/{$set['root']['content']['uri']}");
        self::assertStringContainsString('"RGB"', $tile);
        self::assertStringContainsString('"INTENSITY"', $tile);
        $this->call('GET', "/clouds/2/tiles/{$yard['tiles']}/tileset.json", null, 404);
        $this->call('GET', "/clouds/1/tiles/{$yard['tiles']}/999999.pnts", null, 404);

        foreach (['las', 'e57', 'ply', 'xyz', 'site'] as $kind) {
            $job = $this->job('/handover', ['kind' => "cloud-$kind", 'surfaces' => [2]]);
            self::assertSame('done', $job['state'], $kind.' '.($job['error'] ?? ''));
        }
        $exports = array_column($this->get('/handover')['exports'], null, 'kind');
        foreach (['las', 'e57', 'ply', 'xyz', 'site'] as $kind) {
            self::assertTrue($exports["cloud-$kind"]['holds'], $kind);
        }
        $las = $this->download("/handover/{$exports['cloud-las']['id']}/file");
        self::assertSame([2, $ground['points']], [\ord($las[104]), unpack('V', $las, 107)[1] ?? 0], 'records as they came');
        self::assertStringContainsString('LASF_Projection', $las);
        $path = (string) tempnam(sys_get_temp_dir(), 'site');
        file_put_contents($path, $this->download("/handover/{$exports['cloud-site']['id']}/file"));
        self::assertStringContainsString('window.cloud = {"name":"ground"', (string) TileArchive::file($path, 'index.html'));
        $script = (string) TileArchive::file($path, 'overview.js');
        $overview = json_decode(rtrim(substr($script, \strlen('window.overview = ')), ";\n"), true);
        self::assertSame(base64_encode((string) TileArchive::file($path, 'tiles/0.pnts')), $overview['tiles']['0.pnts']);
        unlink($path);
    }

    /** The same yard, its points turned by half a degree about a corner and moved: laid onto itself it is where it was. */
    public function testACloudIsLaidOntoAnother(): void
    {
        $las = (new Yard())->scan();
        [$lines, $wrong] = ['', ''];
        [$c, $s] = [cos(deg2rad(0.5)), sin(deg2rad(0.5))];
        for ($at = 227, $k = 0; $at < \strlen($las); $at += 26, ++$k) {
            $signed = static fn (int $v): float => ($v < 2 ** 31 ? $v : $v - 2 ** 32) / 1000.0;
            [$x, $y, $z] = array_map($signed, array_values((array) unpack('V3', $las, $at)));
            if (0 === $k % 2) {
                $lines .= \sprintf("%.3f %.3f %.3f\n", Yard::EAST + $x, Yard::NORTH + $y, $z);
            } else {
                [$x, $y] = [$c * $x - $s * $y + 0.4, $s * $x + $c * $y - 0.3];
                $wrong .= \sprintf("%.3f %.3f %.3f\n", Yard::EAST + $x, Yard::NORTH + $y, $z + 0.2);
            }
        }
        foreach (['right' => $lines, 'wrong' => $wrong] as $name => $text) {
            $this->make($name, ['files' => [$this->accept("$name.xyz", $text)['id']]]);
        }
        $this->make('laid', ['clouds' => [2], 'onto' => 1]);
        $laid = $this->get('/clouds')['clouds'][2];

        self::assertSame('right', $laid['fit']['onto']);
        self::assertEqualsWithDelta(0.5, $laid['fit']['turn'], 0.01);
        self::assertEqualsWithDelta(-0.2, $laid['fit']['shift'][2], 0.005);
        self::assertGreaterThan(0.6, $laid['fit']['overlap']);
        self::assertLessThan(0.015, $laid['fit']['rms']);
        // Each holds every other point: the edges agree to what lies between two of them.
        $right = $this->get('/clouds')['clouds'][0]['extent'];
        self::assertEqualsWithDelta(\array_slice($right, 0, 5), \array_slice($laid['extent'], 0, 5), 0.03);
        $this->post('/clouds', ['name' => 'x', 'clouds' => [1], 'onto' => 1], 422);
        $this->square();
        $files = $this->get('/clouds')['files'];
        $words = (string) $this->make('far', ['files' => [$files[array_key_last($files)]['id']], 'onto' => 1], 'failed')['error'];
        self::assertStringContainsString('100 or more can be laid onto others', $words);
    }

    /** Brought to control it shows, by a quarter turn and a move that are known; a check point says how well. */
    public function testACloudIsMovedByTargets(): void
    {
        $lines = '';
        for ($k = 0; $k < 400; ++$k) {
            $lines .= \sprintf("%.3f %.3f %.3f\n", 1000.25 + 0.5 * ($k % 20), 500.25 + 0.5 * intdiv($k, 20), 10.0 + 0.01 * ($k % 7));
        }
        $file = $this->accept('own.xyz', $lines)['id'];
        // In the scanner's own system; in the project's it is turned by a right angle: east there is what was north here, less.
        $place = static fn (float $x, float $y, float $z): array => [493000.0 - ($y - 500.0), 6028000.0 + ($x - 1000.0), $z + 210.0];
        $seen = [];
        $rows = ['hold' => '', 'check' => ''];
        $own = ['T1' => [1000.0, 500.0, 10.0], 'T2' => [1010.0, 500.0, 10.5], 'T3' => [1000.0, 510.0, 11.0]];
        foreach ($own + ['K1' => [1010.0, 510.0, 10.2]] as $name => [$x, $y, $z]) {
            [$e, $n, $h] = $place($x, $y, $z);
            $rows['K1' === $name ? 'check' : 'hold'] .= \sprintf("%s,%.3f,%.3f,%.3f\n", $name, $e, $n, 'K1' === $name ? $h + 0.004 : $h);
            $seen[] = ['target' => $name, 'e' => $x, 'n' => $y, 'h' => $z];
        }
        foreach ($rows as $as => $text) {
            $marks = $this->bring("$as.csv", "point,easting [m],northing [m],ellipsoidal height [m]\n$text");
            $this->call('PUT', "/intake/{$marks['id']}/mapping", ['kind' => 'control'], 200);
            $this->call('PUT', "/intake/{$marks['id']}/meaning", ['control' => $as], 200);
            $this->post("/intake/{$marks['id']}/accept");
        }
        self::assertEqualsCanonicalizing(['T1', 'T2', 'T3', 'K1'], array_column($this->get('/clouds')['points'], 'name'));
        $this->make('moved', ['files' => [$file], 'targets' => $seen]);
        $moved = $this->get('/clouds')['clouds'][0];
        self::assertEqualsWithDelta([90.0, 0.0], [$moved['byTargets']['turn'], $moved['byTargets']['rms']], 1e-4);
        self::assertTrue($moved['byTargets']['isTilted']);
        $off = array_column($moved['byTargets']['off'], null, 'target')['K1'];
        self::assertSame('check', $off['role']);
        self::assertEqualsWithDelta([0.0, 0.0, 0.004], $off['off'], 1e-4);
        self::assertEqualsWithDelta(
            [493000.0 - 9.75, 6028000.25, 220.0, 493000.0 - 0.25, 6028009.75, 220.06], $moved['extent'], 1e-3,
        );
        self::assertContains('moved by targets', $moved['steps']);

        // Exchanged names are found out, and so is what cannot be.
        $said = fn (array $targets): string => (string) $this->make('x', ['files' => [$file], 'targets' => $targets], 'failed')['error'];
        $swapped = $seen;
        [$swapped[0]['target'], $swapped[2]['target']] = ['T3', 'T1'];
        self::assertStringContainsString('show T3 and T1 exchanged', $said($swapped));
        self::assertStringContainsString('check points alone move nothing', $said([$seen[3]]));
        self::assertStringContainsString('is there twice', $said([$seen[0], $seen[0]]));
        self::assertStringContainsString('X is no control', $said([['target' => 'X'] + $seen[0]]));
        $this->post('/clouds', ['name' => 'x', 'files' => [$file], 'targets' => $seen, 'onto' => 1], 422);
    }

    /** Colours by deviation from another cloud, and by time: kept in the LAS file too. */
    public function testACloudIsColoured(): void
    {
        [$flat, $step] = ['', ''];
        for ($k = 0; $k < 400; ++$k) {
            [$e, $n] = [493000.25 + 0.5 * ($k % 20), 6028000.25 + 0.5 * intdiv($k, 20)];
            $flat .= \sprintf("%.3f %.3f 220.000\n", $e, $n);
            $step .= \sprintf("%.3f %.3f %.3f\n", $e, $n, $k % 20 < 10 ? 219.900 : 220.050);
        }
        $this->make('flat', ['files' => [$this->accept('flat.xyz', $flat)['id']]]);
        $file = $this->accept('step.xyz', $step)['id'];
        $paint = ['paint' => 'deviation', 'against' => 'cloud:1', 'range' => 0.1];
        $this->make('step', ['files' => [$file]] + $paint);
        $cloud = $this->get('/clouds')['clouds'][1];
        self::assertSame(['deviation', 'cloud flat', true], [$cloud['painted']['by'], $cloud['painted']['against'], $cloud['hasColours']]);
        self::assertSame(['cloud:1' => 'cloud flat', 'cloud:2' => 'cloud step'], $this->get('/clouds')['products']);
        $result = $this->service(MadeClouds::class);
        $project = $this->service(ProjectRepository::class)->find($this->project);
        \assert($project instanceof Project);
        foreach ($result->opened($result->of($project)[2])->blocks(true) as $block) {
            foreach ($block->looks as $i => $look) {
                // As low as the colours go is blue; half as high as they go is half way from grey to brown.
                $low = $block->x[$i] < 493005.0;
                self::assertEqualsWithDelta(
                    $low ? [47, 95, 158] : [197, 159, 128], array_map(ord(...), str_split(substr($look, 2))), 2.0,
                );
            }
        }
        $times = $this->make('by time', ['files' => [$file], 'paint' => 'time'], 'failed');
        self::assertStringContainsString('holds points without GPS time', (string) $times['error']);
        $this->post('/clouds', ['name' => 'x', 'files' => [$file], 'paint' => 'deviation'], 422);
        $this->post('/clouds', ['name' => 'x', 'files' => [$file], 'paint' => 'mood'], 422);
        $this->make('flat', ['files' => [$this->get('/clouds')['clouds'][0]['files'][0]], 'thin' => 0.9, 'number' => 1]);
        self::assertArrayHasKey('cloud:2', $this->stale());

        $street = new Street(30.0, true, 7, [493_000.0, 6_028_000.0, 220.0]);
        $scan = $street->drive(1000.0, static fn (float $t): array => [0.0, 0.0, 0.0], 300)['points'];
        $this->make('drive', ['files' => [$this->accept('drive.las', Street::las($scan))['id']], 'paint' => 'time']);
        $painted = $this->get('/clouds')['clouds'][2]['painted'];
        self::assertEqualsWithDelta(30.0 / 8.0, $painted['to'] - $painted['from'], 0.1, 'As long as the drive took at 8 m/s.');
    }

    public function testAPlaceIsPickedAndUndone(): void
    {
        $this->make('all', ['files' => [$this->square()]]);
        $pick = ['name' => 'T1', 'code' => 'EDGE', 'e' => 493004.0, 'n' => 6028002.0, 'h' => 200.4];
        $this->post('/clouds/1/points', $pick, 201);
        $point = array_column($this->get('/points')['points'], null, 'name')['T1'];
        self::assertSame(['EDGE', 'surveyed', 493004.0, 200.4], [$point['code'], $point['role'], $point['e'], $point['h']]);
        $again = json_encode($this->post('/clouds/1/points', $pick, 422), \JSON_THROW_ON_ERROR);
        self::assertStringContainsString('there is a point T1 already', $again);
        $this->post('/clouds/7/points', ['name' => 'T2'] + $pick, 404);
        $entry = $this->get('/ledger')['entries'][0];
        self::assertSame('Picked T1 in the cloud all', $entry['title']);
        $this->post("/ledger/{$entry['seq']}/undo");
        self::assertArrayNotHasKey('T1', array_column($this->get('/points')['points'], null, 'name'));
    }

    public function testWhatCannotBeMadeSaysWhy(): void
    {
        $file = $this->square();
        $said = fn (array $request): string => (string) $this->make('x', $request, 'failed')['error'];
        self::assertStringContainsString('there is no such point cloud', $said(['files' => [99]]));
        self::assertStringContainsString('there is no such cloud', $said(['clouds' => [5]]));
        self::assertStringContainsString('no point is left', $said(['files' => [$file], 'classes' => [6]]));
        $this->post('/clouds', ['name' => 'x'], 422);
        $this->post('/clouds', ['name' => 'x', 'files' => [$file], 'crop' => [[0, 0], [1, 1]]], 422);
        $this->post('/clouds', ['name' => 'x', 'files' => [$file], 'number' => 3], 404);
        self::assertSame([], $this->get('/clouds')['clouds']);
    }

    /** Where the project goes, its clouds go: their places by the same way as points. */
    public function testACloudFollowsTheProjectToAnotherSystem(): void
    {
        $this->make('all', ['files' => [$this->square()]]);
        $this->accept('one.csv', "point,easting [m],northing [m],ellipsoidal height [m]\nA,493000.0,6028000.0,200.0\n");
        $before = $this->get('/clouds')['clouds'][0]['extent'];
        $this->call('PUT', '/reference', ['reference' => 'EPSG:25829', 'heights' => 'ellipsoidal'], 200);
        self::assertNotSame([], $this->get('/clouds')['clouds'][0]['stale']);
        $this->job('/recompute');
        $after = $this->get('/clouds')['clouds'][0];
        self::assertSame([], $after['stale']);
        // The corner is where the point at the corner went; the square is turned by some degrees.
        $corner = $this->get('/points')['points'][0];
        self::assertGreaterThan(100_000.0, abs($corner['e'] - 493000.0));
        self::assertEqualsWithDelta($corner['n'], $after['extent'][1], 1.5);
        self::assertEqualsWithDelta($before[5], $after['extent'][5], 0.001);
    }
}
