<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Tests\ApiTestCase;
use Demo\Flight\FlightFilesMade;
use Demo\Flight\FlightScene;
use Symfony\Component\Process\Process;

/** A made-up flight from its files to heights and an orthoimage, against the ground it was rendered from; GDAL opens what comes out. */
final class FlightsTest extends ApiTestCase
{
    /** Images of the first two strips, three of each: enough for a block, quick enough for a test. */
    private const IMAGES = [0, 1, 2, 7, 8, 9];

    private FlightFilesMade $made;

    protected function setUp(): void
    {
        parent::setUp();
        $this->made = new FlightFilesMade(new FlightScene(493800.0, 6028300.0, 231.0));
    }

    private function bringFlight(bool $hasImages = true): int
    {
        $this->accept(FlightFilesMade::CONTROL, $this->made->control());
        $checks = $this->bring(FlightFilesMade::CHECKS, $this->made->checks());
        $meaning = ['frame' => 'project', 'heights' => 'ellipsoidal', 'control' => 'check'];
        $this->call('PUT', "/intake/{$checks['id']}/meaning", $meaning, 200);
        $this->post("/intake/{$checks['id']}/accept");
        $mission = json_decode($this->made->mission(), true, 64, \JSON_THROW_ON_ERROR);
        $mission['images'] = array_values(array_intersect_key($mission['images'], array_flip(self::IMAGES)));
        $file = $this->accept(FlightFilesMade::MISSION, json_encode($mission, \JSON_THROW_ON_ERROR));
        self::assertSame('flight', $file['kind']);
        foreach ($hasImages ? self::IMAGES : [] as $i) {
            $this->accept(FlightFilesMade::name($i), $this->made->image($i));
        }

        return $file['id'];
    }

    /** @return list<array{point: string, image: string, x: float, y: float}> */
    private function marks(): array
    {
        $names = array_map(FlightFilesMade::name(...), self::IMAGES);

        return array_values(array_filter($this->made->marks(), static fn (array $m): bool => \in_array($m['image'], $names, true)));
    }

    public function testFromImagesToAnOrthoimage(): void
    {
        $mission = $this->bringFlight();
        $before = $this->get("/clouds/missions/$mission");
        self::assertSame([0, false, 6], [$before['missing'], $before['isOriented'], \count($before['images'])]);
        self::assertEqualsWithDelta(0.15, $before['pixel'], 0.01, 'Height above ground over the focal length in pixels.');
        self::assertEqualsWithDelta(0.75, $before['forward'], 0.08, 'As the flight was planned.');
        $job = $this->job('/clouds/flights', ['name' => 'field', 'mission' => $mission, 'marks' => $this->marks()]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $flight = $this->get('/clouds/flights')['flights'][0];
        self::assertSame([6, 6, [], true, []], [
            $flight['images'], $flight['joined'], $flight['alone'], $flight['isHeld'], $flight['swapped'],
        ]);
        self::assertGreaterThan(100, $flight['points']);
        self::assertLessThan(1.0, $flight['sigma0'], 'Tie points are known to half a pixel or better.');
        // Check points: within a pixel and a half on the ground in plan, two and a half in height.
        self::assertGreaterThanOrEqual(2, $flight['checks']);
        self::assertLessThan(1.5 * $flight['pixel'], $flight['rms'][0]);
        self::assertLessThan(2.5 * $flight['pixel'], $flight['rms'][1]);
        // Images are where the scene had them.
        $figures = $this->get('/clouds/flights/1');
        foreach ($figures['images'] as $k => $image) {
            [$at] = $this->made->scene->truth[self::IMAGES[$k]];
            self::assertEqualsWithDelta(\array_slice($at, 0, 2), \array_slice($image['position'], 0, 2), 0.6, $image['file']);
        }
        // Where a point is seen now: at the marks, to a few pixels.
        $shown = array_column($this->get("/clouds/missions/$mission/shows/FK4"), null, 'image');
        foreach ($this->marks() as $m) {
            if ('FK4' === $m['point']) {
                self::assertLessThan(3.0, hypot($shown[$m['image']]['x'] - $m['x'], $shown[$m['image']]['y'] - $m['y']));
            }
        }

        $job = $this->job('/clouds/orthos', ['name' => 'field', 'flight' => 1, 'cell' => 1.2, 'pixel' => 0.3]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $ortho = $this->get('/clouds/flights')['orthos'][0];
        self::assertGreaterThan(0.7, $ortho['completeness']);
        self::assertStringStartsWith("\xFF\xD8\xFF", $this->download('/clouds/orthos/1/picture'));
        $job = $this->job('/handover', ['kind' => 'ortho', 'surfaces' => [1]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $file = array_column($this->get('/handover')['exports'], null, 'kind')['ortho'];
        self::assertTrue($file['holds'], json_encode($file['checks'], \JSON_THROW_ON_ERROR));
        $this->heights($this->download("/handover/{$file['id']}/file"));

        // Check points against its heights: as the page of the flight has them, and in the report.
        self::assertSame(['ortho:1' => 'heights of flight field'], $this->get('/checks')['made']);
        $job = $this->job('/checks/points', ['name' => 'heights', 'against' => 'made', 'made' => 'ortho:1']);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $check = $this->get('/checks')['checks'][0];
        self::assertGreaterThanOrEqual(2, $check['used']);
        self::assertLessThan(2.5 * $flight['pixel'], array_column($check['axes'], null, 'axis')['h']['rms']);
        $off = array_column($ortho['known'], 'off', 'id');
        foreach ($this->get("/checks/points/{$check['number']}")['points'] as $p) {
            if (null !== $p['dh']) {
                $words = 'A plane through cells, and between four of them.';
                self::assertEqualsWithDelta($off[$p['name']] ?? $p['dh'], $p['dh'], 0.25, $words);
            }
        }
        $job = $this->job('/checks/points', ['name' => 'none', 'against' => 'made', 'made' => 'ortho:7']);
        self::assertStringContainsString('there is no such cloud', (string) $job['error']);

        // Another mark makes another version; the control that is given otherwise makes it stale.
        $this->job('/clouds/flights', ['name' => 'field', 'number' => 1, 'mission' => $mission, 'marks' => []]);
        $flight = $this->get('/clouds/flights')['flights'][0];
        self::assertSame([2, false, null], [$flight['run'], $flight['isHeld'], $flight['rms']]);
        self::assertArrayHasKey('ortho:1', $this->stale());
        self::assertArrayHasKey('check:1', $this->stale());
    }

    /** Heights against the scene, read by GDAL at places drawn by chance. */
    private function heights(string $zip): void
    {
        $folder = sys_get_temp_dir().'/ortho-'.bin2hex(random_bytes(4));
        mkdir($folder);
        file_put_contents("$folder/all.zip", $zip);
        (new Process(['unzip', '-q', "$folder/all.zip", '-d', $folder]))->mustRun();
        $info = (new Process(['gdalinfo', "$folder/orthoimage.tif"]))->mustRun()->getOutput();
        self::assertStringContainsString('ID["EPSG",25830]', $info);
        self::assertSame(4, substr_count($info, 'Type=Byte'));
        $places = '';
        $meant = [];
        for ($k = 0; $k < 60; ++$k) {
            [$e, $n] = [493800.0 - 25.0 + 0.4 * ($k * 7 % 60), 6028300.0 - 20.0 + 0.5 * ($k * 13 % 60)];
            $places .= "$e $n\n";
            $meant[] = $this->made->scene->height($e, $n);
        }
        $read = (new Process(['gdallocationinfo', '-valonly', '-geoloc', "$folder/heights.tif"], input: $places))->mustRun()->getOutput();
        $off = [];
        foreach (explode("\n", trim($read)) as $k => $h) {
            if ('' !== $h && (float) $h > -9000.0) {
                $off[] = abs((float) $h - $meant[$k]);
            }
        }
        self::assertGreaterThan(30, \count($off));
        sort($off);
        self::assertLessThan(0.15, $off[intdiv(\count($off), 2)], 'Half of them within a ground pixel.');
        self::assertLessThan(0.6, $off[(int) (0.9 * \count($off))]);
        (new Process(['rm', '-rf', $folder]))->run();
    }

    public function testWhatIsMissingOrMistakenIsNamed(): void
    {
        $mission = $this->bringFlight(false);
        $job = $this->job('/clouds/flights', ['name' => 'field', 'mission' => $mission]);
        self::assertStringContainsString('6 of its images have not come in: field-01.jpg', (string) $job['error']);
        $mark = ['point' => 'nobody', 'image' => 'field-01.jpg', 'x' => 10, 'y' => 10];
        $job = $this->job('/clouds/flights', ['name' => 'field', 'mission' => $mission, 'marks' => [$mark]]);
        self::assertStringContainsString('nobody is no control or check point', (string) $job['error']);
        $this->post('/clouds/flights', ['name' => 'field', 'mission' => $mission, 'marks' => [['point' => 'FP1']]], 422);
        $job = $this->job('/clouds/orthos', ['name' => 'field', 'flight' => 7]);
        self::assertStringContainsString('there is no such flight', (string) $job['error']);
        $wrong = $this->bring('wrong.json', '{"format": "mensura-flight/1", "name": "x", "camera": {"width": 100, "height": 80}}');
        self::assertStringContainsString('focal length', (string) $wrong['unreadable']);
    }
}
