<?php

declare(strict_types=1);

namespace App\Tests\Clouds;

use App\Tests\ApiTestCase;
use Demo\Flight\WallFilesMade;
use Demo\Flight\WallScene;
use Mensura\Exchange\Cloud\CloudReader;

/** Images of a made-up rover: a point picked in one, found in the others, kept; dense points; against the barn they were rendered from. */
final class GroupsTest extends ApiTestCase
{
    private const GROUP = 'barn, front';
    private const IMAGES = [0, 2, 3, 4, 5, 7];

    private WallFilesMade $made;

    protected function setUp(): void
    {
        parent::setUp();
        $this->made = new WallFilesMade(new WallScene(493880.0, 6028300.0, 231.0));
    }

    private function bringGroup(): int
    {
        $group = json_decode($this->made->group(self::GROUP), true, 64, \JSON_THROW_ON_ERROR);
        $group['images'] = array_values(array_intersect_key($group['images'], array_flip(self::IMAGES)));
        $file = $this->accept(WallFilesMade::file(self::GROUP), json_encode($group, \JSON_THROW_ON_ERROR));
        foreach (self::IMAGES as $i) {
            $this->accept(WallFilesMade::name(self::GROUP, $i), $this->made->image(self::GROUP, $i));
        }

        return $file['id'];
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return array{image: string, x: float, y: float}
     */
    private function ray(int $image, array $place): array
    {
        $pixel = $this->made->scene->pixel(self::GROUP, $image, $place);
        self::assertNotNull($pixel);

        return ['image' => WallFilesMade::name(self::GROUP, $image), 'x' => round($pixel[0], 2), 'y' => round($pixel[1], 2)];
    }

    public function testPickedFoundAndKept(): void
    {
        $group = $this->bringGroup();
        $flights = $this->get('/clouds/flights');
        self::assertSame([self::GROUP, true, 6], [
            $flights['missions'][0]['name'], $flights['missions'][0]['isGroup'], $flights['missions'][0]['images'],
        ]);
        $view = $this->get("/clouds/missions/$group");
        self::assertTrue($view['isGroup']);
        // A frustum: 63 degrees wide, ten metres long, looking north.
        [$at, $left, $right] = $view['images'][0]['footprint'];
        self::assertEqualsWithDelta(12.3, $right[0] - $left[0], 0.5, 'Width over the focal length, times the distance.');
        self::assertEqualsWithDelta(10.0, 0.5 * ($left[1] + $right[1]) - $at[1], 0.4);
        $job = $this->job('/clouds/flights', ['name' => self::GROUP, 'mission' => $group]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $flight = $this->get('/clouds/flights')['flights'][0];
        self::assertSame([6, 6, []], [$flight['images'], $flight['joined'], $flight['alone']]);
        self::assertEqualsWithDelta(0.019, $flight['pixel'], 0.004, 'Ten metres over 520 pixels.');

        // Points of the wall ten metres away: within two centimetres, picked where they are to a hundredth of a pixel.
        $worst = 0.0;
        foreach ([[0.0, WallScene::WALL, 2.0], [-1.0, WallScene::WALL, 3.2], [-2.0, WallScene::WALL, 5.0]] as $where) {
            $place = $this->made->scene->place(...$where);
            $met = $this->post('/clouds/flights/1/rays', ['rays' => [$this->ray(3, $place)], 'find' => true], 200);
            self::assertGreaterThanOrEqual(5, \count($met['rays']), 'Found in most of the others.');
            foreach ($met['rays'] as $ray) {
                self::assertLessThan(1.5, hypot($ray['dx'], $ray['dy']));
            }
            $worst = max($worst, ...array_map(static fn (float $a, float $b): float => abs($a - $b), $met['place'], $place));
            self::assertLessThan(0.07, max($met['sd']));
            self::assertGreaterThan(0.004, min($met['sd']), 'No better than the positions of six images.');
        }
        self::assertLessThan(0.02, $worst);

        // The lines in the other images run through what they show of the place.
        $ray = $this->ray(3, $place);
        $one = $this->post('/clouds/flights/1/rays', ['rays' => [$ray]], 200);
        self::assertNull($one['place']);
        self::assertCount(5, $one['lines']);
        foreach ($one['lines'] as $line) {
            $true = $this->ray((int) substr($line['image'], -6, 2) - 1, $place);
            $near = array_map(static fn (array $p): float => hypot($p[0] - $true['x'], $p[1] - $true['y']), $line['line']);
            self::assertLessThan(14.0, min($near), 'A step of the line.');
        }

        // A ray that is off shows; without it the others agree again.
        $rays = array_map(static fn (array $r): array => ['image' => $r['image'], 'x' => $r['x'], 'y' => $r['y']], $met['rays']);
        $rays[1] = ['image' => $rays[1]['image'], 'x' => $rays[1]['x'] + 25.0, 'y' => $rays[1]['y']];
        $off = $this->post('/clouds/flights/1/rays', ['rays' => $rays], 200);
        self::assertSame([$rays[1]['image'], null], [$off['mistaken'], $met['mistaken']]);
        $residuals = array_map(static fn (array $r): float => hypot($r['dx'], $r['dy']), $off['rays']);
        self::assertGreaterThan(10.0, max($residuals));
        $rays = array_values(array_diff_key($rays, [1 => true]));
        $less = $this->post('/clouds/flights/1/rays', ['rays' => $rays], 200);
        self::assertLessThan(1.5, max(array_map(static fn (array $r): float => hypot($r['dx'], $r['dy']), $less['rays'])));
        self::assertGreaterThan($met['sd'][0], $less['sd'][0], 'Fewer rays know it less.');

        $this->post('/clouds/flights/1/points', ['name' => 'B1', 'code' => 'WIN', 'rays' => $rays], 201);
        $points = $this->get('/points?like=B1')['points'] ?? $this->get('/points')['points'];
        $point = array_column($points, null, 'name')['B1'];
        self::assertSame(['WIN', 'images'], [$point['code'], $point['source']]);
        self::assertEqualsWithDelta($less['place'][0], $point['e'], 1e-4);
        $this->post('/clouds/flights/1/points', ['name' => 'B1', 'rays' => $rays], 422);

        $this->refused($rays, $ray);
        $this->dense();
    }

    /**
     * @param list<array<string, mixed>>                     $rays
     * @param array{image: string, x: float, y: float}       $ray
     */
    private function refused(array $rays, array $ray): void
    {
        foreach ([
            'is no oriented image' => [['image' => 'other.jpg'] + $ray], 'has a ray already' => [$ray, $ray],
            'lies outside the image' => [['x' => 4000.0] + $ray],
        ] as $words => $given) {
            $answer = $this->post('/clouds/flights/1/rays', ['rays' => $given], 422);
            self::assertStringContainsString($words, json_encode($answer, \JSON_THROW_ON_ERROR));
        }
        $this->post('/clouds/flights/7/rays', ['rays' => $rays], 404);
        $this->post('/clouds/flights/1/rays', ['rays' => []], 422);
        $answer = $this->post('/clouds/flights/1/points', ['name' => 'B2', 'rays' => \array_slice($rays, 0, 1)], 422);
        self::assertStringContainsString('rays', json_encode($answer, \JSON_THROW_ON_ERROR));
    }

    /** Points on the faces of the barn, as a cloud with colours. */
    private function dense(): void
    {
        $job = $this->job('/clouds/dense', ['name' => 'barn', 'flights' => [1], 'spacing' => 0.16]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $cloud = $this->get('/clouds')['clouds'][0];
        self::assertSame(['barn', [1], true], [$cloud['name'], $cloud['dense'], $cloud['hasColours']]);
        self::assertGreaterThan(2000, $cloud['points']);
        $job = $this->job('/handover', ['kind' => 'cloud-las', 'surfaces' => [$cloud['number']]]);
        self::assertSame('done', $job['state'], (string) $job['error']);
        $file = array_column($this->get('/handover')['exports'], null, 'kind')['cloud-las'];
        $path = tempnam(sys_get_temp_dir(), 'dense').'.las';
        file_put_contents($path, $this->download("/handover/{$file['id']}/file"));
        $reader = CloudReader::open($path, 'barn');
        self::assertTrue($reader->hasColours());
        $scene = $this->made->scene;
        $eye = [0.0, 0.0, 1.85];
        $off = [];
        foreach ($reader->blocks() as $block) {
            foreach ($block->x as $k => $x) {
                $d = [$x - $scene->east - $eye[0], $block->y[$k] - $scene->north - $eye[1], $block->z[$k] - $scene->ground - $eye[2]];
                [$t] = WallScene::meets($eye, $d);
                $off[] = abs($t - 1.0) * hypot(hypot($d[0], $d[1]), $d[2]);
            }
        }
        unlink($path);
        sort($off);
        self::assertLessThan(0.03, $off[intdiv(\count($off), 2)], 'Half of them within a pixel and a half.');
        self::assertLessThan(0.15, $off[(int) (0.9 * \count($off))]);
    }
}
