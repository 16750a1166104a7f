<?php

declare(strict_types=1);

namespace Mensura\Tests\Rays;

use Demo\Flight\WallScene;
use Mensura\Exchange\FlightJson\MissionReader;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\FlightBlock;
use Mensura\Flight\OrientedImages;
use Mensura\Image\Rotation;
use Mensura\Rays\ImageRays;
use Mensura\Rays\RayMatch;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;

/** Rays of images against the geometry they were made with. */
#[CoversClass(ImageRays::class)]
#[CoversClass(RayMatch::class)]
final class ImageRaysTest extends TestCase
{
    private const GROUP = 'barn, front';

    private WallScene $scene;
    private ImageRays $rays;

    protected function setUp(): void
    {
        $this->scene = new WallScene(493880.0, 6028300.0, 231.0);
        $truth = $this->scene->truth[self::GROUP];
        $this->rays = new ImageRays(new OrientedImages(
            WallScene::CAMERA, array_column($truth, 0), array_map(static fn (array $t): array => Rotation::of(...$t[1]), $truth),
            WallScene::WIDTH, WallScene::HEIGHT,
        ));
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return list<array{int, float, float}>
     */
    private function seen(array $place): array
    {
        $seen = [];
        foreach (array_keys($this->scene->truth[self::GROUP]) as $i) {
            $pixel = $this->scene->pixel(self::GROUP, $i, $place);
            if (null !== $pixel) {
                $seen[] = [$i, ...$pixel];
            }
        }

        return $seen;
    }

    public function testRaysOfAPlaceMeetInIt(): void
    {
        foreach ([[0.0, WallScene::WALL, 2.0], [2.2, 8.8, 1.5], [-3.3, 10.35, 1.0]] as $where) {
            $place = $this->scene->place(...$where);
            $seen = $this->seen($place);
            self::assertGreaterThan(3, \count($seen));
            $met = $this->rays->meet($seen);
            self::assertNotNull($met);
            self::assertEqualsWithDelta($place, $met[0], 1e-6);
            self::assertEqualsWithDelta(0.0, max(array_map(static fn (array $o): float => hypot($o[0], $o[1]), $met[2])), 1e-6);
            self::assertNull($this->rays->mistaken($seen, 2.5));
            // On its line in every other image, and as far along it as the axes of the camera say.
            [$first, $x, $y] = $seen[0];
            self::assertEqualsWithDelta($place, $this->rays->at($first, $x, $y, $this->rays->depth($first, $place)), 1e-7);
            foreach (\array_slice($seen, 1) as [$other, $u, $v]) {
                $line = $this->rays->line($first, $x, $y, $other, 5.0, 30.0);
                self::assertLessThan(0.05, self::offLine($line, $u, $v));
            }
            $seen[2][1] += 30.0;
            self::assertSame(2, $this->rays->mistaken($seen, 2.5));
        }
    }

    /**
     * Two rays that meet at an angle: the well-known error of the normal case, depth squared over base and focal length (Kraus,
     * Photogrammetry, section 4.6; parallax of two pixels each known to half of one).
     */
    public function testPrecisionOfTheNormalCase(): void
    {
        $level = Rotation::of(90.0, 0.0, 0.0);
        $rays = new ImageRays(new OrientedImages(
            [1000.0, 500.0, 500.0, 0.0, 0.0, 0.0, 0.0, 0.0], [[0.0, 0.0, 0.0], [2.0, 0.0, 0.0]], [$level, $level], 1000, 1000,
        ));
        $met = $rays->meet([[0, 600.0, 500.0], [1, 400.0, 500.0]]);
        self::assertNotNull($met);
        self::assertEqualsWithDelta([1.0, 10.0, 0.0], $met[0], 1e-9);
        self::assertEqualsWithDelta(10.0 ** 2 / (2.0 * 1000.0) * sqrt(2.0) * ImageRays::SD, $met[1][1], 1e-9);
        self::assertNull($rays->meet([[0, 500.0, 500.0], [1, 500.0, 500.0]]), 'Parallel rays meet nowhere.');
        self::assertNull($rays->meet([[0, 400.0, 500.0], [1, 600.0, 500.0]]), 'They meet behind the images.');
        self::assertNull($rays->meet([[0, 500.0, 500.0]]));
    }

    /** Found in rendered images to a part of a pixel, and nowhere on the sky. */
    public function testFoundInTheOthers(): void
    {
        $opened = [];
        $open = function (int $i) use (&$opened): \GdImage {
            return $opened[$i] ??= $this->image($i);
        };
        $match = new RayMatch(new ImageRays(new OrientedImages(
            WallScene::CAMERA, \array_slice($this->rays->images->positions, 2, 3, true),
            \array_slice($this->rays->images->rotations, 2, 3, true), WallScene::WIDTH, WallScene::HEIGHT,
        )), $open);
        $place = $this->scene->place(-0.4, WallScene::WALL, 2.6);
        $pixel = $this->scene->pixel(self::GROUP, 3, $place);
        self::assertNotNull($pixel);
        $found = $match->find(3, $pixel[0], $pixel[1], [7.0, 14.0]);
        self::assertCount(2, $found);
        foreach ($found as [$image, $x, $y, $alike]) {
            $true = $this->scene->pixel(self::GROUP, $image, $place);
            self::assertNotNull($true);
            self::assertLessThan(1.0, hypot($x - $true[0], $y - $true[1]));
            self::assertGreaterThan(0.85, $alike);
        }
        self::assertSame([], $match->find(3, 320.0, 12.0, [7.0, 14.0]), 'The sky looks like nothing.');
    }

    /** What angles are known to counts: with it a group along a line is determined, without it it turns about that line. */
    public function testAnglesHoldAGroup(): void
    {
        $truth = $this->scene->truth[self::GROUP];
        $tracks = [];
        for ($k = 0; $k < 120; ++$k) {
            $place = $this->scene->place(-6.0 + ($k * 37 % 120) / 10.0, WallScene::WALL, 0.4 + ($k * 53 % 57) / 10.0);
            $track = [];
            foreach ($this->seen($place) as [$i, $x, $y]) {
                $track[$i] = [$x + $this->scene->normal(0.25), $y + $this->scene->normal(0.25)];
            }
            if (\count($track) > 1) {
                $tracks[] = $track;
            }
        }
        // On one line, as straight as nobody walks.
        $positions = array_map(static fn (array $t): array => $t[0], $truth);
        $rotations = array_map(static fn (array $t): array => Rotation::of($t[1][0] + 0.3, $t[1][1] - 0.2, $t[1][2] + 0.1), $truth);
        $names = array_map(static fn (int $i): string => "image $i", array_keys($truth));
        $sd = [];
        foreach ([null, [0.3, 0.3]] as $turn) {
            $adjusted = (new FlightBlock(
                WallScene::CAMERA, [], $names, $positions, [0.006, 0.006, 0.010], $rotations, $tracks, [], $turn, 400, 0.3,
            ))->adjust(false, null);
            self::assertTrue($adjusted->result->converged);
            $sds = array_column($adjusted->result->placeSds, 2);
            sort($sds);
            $sd[] = $sds[intdiv(\count($sds), 2)];
            $off = Rotation::apart(Rotation::of(...$truth[3][1]), $adjusted->result->rotations[3]);
            self::assertLessThan(null === $turn ? 2.0 : 0.4, rad2deg(hypot(hypot($off[0], $off[1]), $off[2])));
        }
        self::assertLessThan(0.8 * $sd[0], $sd[1], 'Heights are known better with the tilt.');
    }

    public function testWhatAGroupSays(): void
    {
        $json = '{"format":"mensura-flight/1","name":"g","camera":{"width":640,"height":480,"f":520},"distance":10,'
            .'"sd":{"plan":0.01,"up":0.02%s},"images":[%s]}';
        $image = '{"file":"%s.jpg","e":1,"n":2,"h":3,"omega":90,"phi":0,"kappa":0}';
        $images = implode(',', array_map(static fn (string $f): string => \sprintf($image, $f), ['a', 'b', 'c']));
        $group = MissionReader::read(\sprintf($json, ',"tilt":0.1,"heading":0.2', $images));
        self::assertSame([true, [0.1, 0.2], 10.0], [$group->isGroup, $group->turnSd, $group->above]);
        self::assertNull(MissionReader::read(\sprintf($json, '', $images))->turnSd);
        foreach ([
            'is missing beside the other' => [',"tilt":0.1', $images],
            'needed of every image' => ['', str_replace('"omega":90,', '', $images)],
        ] as $words => $parts) {
            try {
                MissionReader::read(\sprintf($json, ...$parts));
                self::fail($words);
            } catch (UnusableInput $e) {
                self::assertStringContainsString($words, $e->reason);
            }
        }
    }

    private function image(int $i): \GdImage
    {
        $gd = imagecreatetruecolor(WallScene::WIDTH, WallScene::HEIGHT) ?: throw new \RuntimeException();
        foreach ($this->scene->render(self::GROUP, $i) as $k => $grey) {
            imagesetpixel($gd, $k % WallScene::WIDTH, intdiv($k, WallScene::WIDTH), 0x10101 * $grey);
        }

        return $gd;
    }

    /** @param list<array{float, float}> $line */
    private static function offLine(array $line, float $u, float $v): float
    {
        $best = \INF;
        foreach ($line as $k => [$x, $y]) {
            [$p, $q] = $line[$k + 1] ?? [$x, $y];
            $l = ($p - $x) ** 2 + ($q - $y) ** 2;
            $t = $l > 0.0 ? max(0.0, min(1.0, (($u - $x) * ($p - $x) + ($v - $y) * ($q - $y)) / $l)) : 0.0;
            $best = min($best, hypot($x + $t * ($p - $x) - $u, $y + $t * ($q - $y) - $v));
        }

        return $best;
    }
}
