<?php

declare(strict_types=1);

namespace Mensura\Tests\Flight;

use Demo\Flight\FlightScene;
use Mensura\Exchange\FlightJson\MissionReader;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\Coverage;
use Mensura\Flight\ElevationModel;
use Mensura\Flight\FlightBlock;
use Mensura\Flight\OrientedImages;
use Mensura\Flight\Orthoimage;
use Mensura\Image\Block;
use Mensura\Image\Rotation;
use Mensura\Matching\GreyImage;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;

/** A flight against the scene it was rendered from. */
#[CoversClass(FlightBlock::class)]
#[CoversClass(ElevationModel::class)]
#[CoversClass(Orthoimage::class)]
#[CoversClass(Coverage::class)]
final class FlightTest extends TestCase
{
    private FlightScene $scene;

    protected function setUp(): void
    {
        $this->scene = new FlightScene(493800.0, 6028300.0, 231.0);
    }

    /**
     * True pixels of made-up ground points with a third of a pixel of noise; some of them mistaken by a lot, some by little.
     *
     * @param bool $isTwice whether the eighth image was taken twice, which the last tie points are seen by
     */
    private function block(float $noise = 0.3, bool $isTwice = false): FlightBlock
    {
        $s = $this->scene;
        $tracks = [];
        for ($k = 0; $k < 220; ++$k) {
            [$e, $n] = [$s->east - 46.0 + ($k * 37 % 92), $s->north - 42.0 + ($k * 53 % 84)];
            $track = $this->seen([$e, $n, $s->height($e, $n)], $noise);
            if (0 === $k % 20) {
                $i = array_key_last($track) ?? 0;
                $track[$i] = [$track[$i][0] + (0 === $k % 40 ? 140.0 : 6.0), $track[$i][1]];
            }
            if (\count($track) > 1) {
                $tracks[] = $track;
            }
        }
        $known = [];
        foreach ([[-34, -30], [36, -32], [38, 30], [-34, 32], [0, 0], [12, 10], [-20, 14], [4, -20]] as $k => [$x, $y]) {
            $place = [$s->east + $x, $s->north + $y, $s->height($s->east + $x, $s->north + $y)];
            $known[] = [
                'id' => "P$k", 'role' => $k < 5 ? Block::CONTROL : Block::CHECK, 'place' => $place, 'sd' => [0.01, 0.01, 0.015],
                'marks' => $this->seen($place, $noise),
            ];
        }
        $positions = array_map(static fn (array $t): array => [
            $t[0][0] + $s->normal(0.8), $t[0][1] + $s->normal(0.8), $t[0][2] + $s->normal(1.2),
        ], $s->truth);
        $names = array_map(static fn (int $i): string => "image $i", array_keys($s->truth));
        if ($isTwice) {
            $names[] = 'the eighth again';
            $positions[] = $positions[7];
            array_push($tracks, ...$this->ofTwice($noise));
        }
        $angles = $isTwice ? array_column([...$s->truth, $s->truth[7]], 1) : array_fill(0, \count($names), null);

        return new FlightBlock(FlightScene::SAID, [0, 1, 2, 3, 4], $names, $positions, [0.8, 0.8, 1.2], $angles, $tracks, $known);
    }

    /** @return list<array<int, array{float, float}>> tie points of image 7 and 15, its double, and of the double and its neighbours */
    private function ofTwice(float $noise): array
    {
        $s = $this->scene;
        $at = static fn (int $image, array $p): array => array_map(
            static fn (float $v): float => $v + $s->normal($noise), $s->pixel($image, $p) ?? self::fail('It is seen there.'),
        );
        $ground = static fn (float $x, float $y): array => [$s->east + $x, $s->north + $y, $s->height($s->east + $x, $s->north + $y)];
        $tracks = [];
        for ($k = 0; $k < 6; ++$k) {
            $p = $ground(-10.0 + 4.0 * $k, -5.0 + 3.0 * $k);
            $tracks[] = [7 => $at(7, $p), 15 => $at(7, $p)];
        }
        foreach ([6, 8, 2, 12] as $other) {
            for ($k = 0; $k < 24; ++$k) {
                $p = $ground(-20.0 + 5.0 * ($k % 8), -15.0 + 10.0 * intdiv($k, 8) + 1.0 * ($k % 8));
                if (null !== $s->pixel($other, $p) && null !== $s->pixel(7, $p)) {
                    $tracks[] = [$other => $at($other, $p), 15 => $at(7, $p)];
                }
            }
        }

        return $tracks;
    }

    /**
     * @param array{float, float, float} $place
     *
     * @return array<int, array{float, float}>
     */
    private function seen(array $place, float $noise): array
    {
        $track = [];
        foreach (array_keys($this->scene->truth) as $i) {
            $pixel = $this->scene->pixel($i, $place);
            if (null !== $pixel) {
                $track[$i] = [$pixel[0] + $this->scene->normal($noise), $pixel[1] + $this->scene->normal($noise)];
            }
        }

        return $track;
    }

    /** Without angles, with mistaken tie points: control brings the block where the ground is, and check points say so. */
    public function testABlockFindsItsImagesAndItsCamera(): void
    {
        $block = $this->block();
        $free = $block->adjust(false, null);
        self::assertTrue($free->result->converged);
        self::assertCount(15, $free->result->positions);
        foreach ($free->known() as $k) {
            self::assertSame(Block::CHECK, $k['role'], 'Nothing is held yet.');
        }
        $held = $block->adjust(true, $free);
        self::assertTrue($held->result->converged);
        self::assertGreaterThan(8, \count($held->left), 'What was mistaken is left out.');
        self::assertLessThan(0.75, $held->result->sigma0, 'A third of a pixel where half a one is assumed.');
        foreach ($held->known() as $k) {
            if (Block::CHECK === $k['role']) {
                self::assertLessThan(0.22, hypot($k['off'][0] ?? \INF, $k['off'][1] ?? \INF), $k['id'].', a pixel and a half');
                self::assertLessThan(0.37, abs($k['off'][2] ?? \INF), $k['id'].', two and a half');
            }
        }
        $camera = $held->result->cameras[0];
        self::assertEqualsWithDelta(FlightScene::CAMERA[0], $camera[0], 1.5, 'focal length');
        self::assertEqualsWithDelta(FlightScene::CAMERA[3], $camera[3], 0.01, 'distortion');
    }

    /** Two images from one place see a point in one direction: it is left out, and the rest is solved. */
    public function testTiePointsThatTheirRaysDoNotDetermineAreLeftOut(): void
    {
        $free = $this->block(0.3, true)->adjust(false, null);
        self::assertTrue($free->result->converged);
        self::assertCount(16, $free->result->positions);
        self::assertLessThan(0.75, $free->result->sigma0);
        $ofDouble = array_filter(array_keys($free->left), static fn (string $ray): bool => str_starts_with($ray, '15 '));
        self::assertSame(['15 218', '15 219', '15 220', '15 221', '15 222', '15 223'], array_values($ofDouble));
    }

    public function testHeightsAndColoursOfTheGround(): void
    {
        $s = $this->scene;
        $grey = $pixels = [];
        foreach ([6, 7, 8] as $i) {
            $pixels[$i] = $s->render($i);
            $grey[$i] = GreyImage::of(FlightScene::WIDTH, FlightScene::HEIGHT, $pixels[$i]);
        }
        $of = array_intersect_key($s->truth, $grey);
        $images = new OrientedImages(
            FlightScene::CAMERA, array_map(static fn (array $t): array => $t[0], $of), array_map(static fn (array $t): array => $t[1], $of),
            FlightScene::WIDTH, FlightScene::HEIGHT,
        );
        $box = [$s->east - 12.0, $s->north - 10.0, $s->east + 12.0, $s->north + 10.0];
        $model = ElevationModel::of($images, $grey, $box, [228.0, 238.0], 0.8);
        self::assertGreaterThan(0.9, $model->completeness());
        $off = [];
        foreach ($model->h as $k => $h) {
            if (null !== $h) {
                $e = $model->west + ($k % $model->columns + 0.5) * $model->cell;
                $off[] = abs($h - $s->height($e, $model->north - (intdiv($k, $model->columns) + 0.5) * $model->cell));
            }
        }
        sort($off);
        self::assertLessThan(0.15, $off[intdiv(\count($off), 2)], 'A ground pixel.');
        $open = static function (int $i) use ($pixels): \GdImage {
            $image = imagecreatetruecolor(FlightScene::WIDTH, FlightScene::HEIGHT);
            foreach ($pixels[$i] as $k => $g) {
                imagesetpixel($image, $k % FlightScene::WIDTH, intdiv($k, FlightScene::WIDTH), ($g << 16) | ($g << 8) | $g);
            }

            return $image;
        };
        [$columns, $rows, $rgba] = Orthoimage::of($images, $model, $open, 0.2);
        self::assertSame([120, 100, 48000], [$columns, $rows, \strlen($rgba)]);
        $off = [];
        for ($k = 0; $k < $columns * $rows; $k += 7) {
            if ("\xFF" === $rgba[4 * $k + 3]) {
                $e = $model->west + ($k % $columns + 0.5) * 0.2;
                $off[] = abs(\ord($rgba[4 * $k]) - $s->shade($e, $model->north - (intdiv($k, $columns) + 0.5) * 0.2));
            }
        }
        sort($off);
        self::assertLessThan(6.0, $off[intdiv(\count($off), 2)], 'Grey values of 256, the sensor adds 5.');
    }

    /** Two squares of ten metres, one moved by four: 14 by 10 m are shown, 6 by 10 twice; the second shows 60 % of the first. */
    public function testCoverage(): void
    {
        $square = static fn (float $x): array => [[$x, 0.0], [$x + 10.0, 0.0], [$x + 10.0, 10.0], [$x, 10.0]];
        $cover = Coverage::of([$square(0.0), $square(4.0)]);
        self::assertEqualsWithDelta(140.0, $cover->area(1), 8.0);
        self::assertEqualsWithDelta(60.0, $cover->area(2), 6.0);
        self::assertEqualsWithDelta(0.6, $cover->forward, 0.04);
        self::assertSame(0.0, Coverage::of([[]])->area(1));
    }

    /** A camera straight above: the ground it shows is its size over the focal length, times the height. */
    public function testFootprint(): void
    {
        $camera = [400.0, 240.0, 180.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        $images = new OrientedImages($camera, [[100.0, 200.0, 60.0]], [Rotation::of(0, 0, 0)], 480, 360);
        self::assertEqualsWithDelta([[64.0, 227.0], [136.0, 227.0], [136.0, 173.0], [64.0, 173.0]], $images->footprint(0, 0.0), 1e-9);
        self::assertEqualsWithDelta(0.15, $images->groundPixel(0.0), 1e-12);
        self::assertEqualsWithDelta([240.0, 180.0], $images->pixel(0, 100.0, 200.0, 3.0), 1e-9);
        self::assertNull($images->pixel(0, 100.0, 200.0, 80.0), 'It lies behind.');
    }

    public function testAMissionSaysWhatIsWrongWithIt(): void
    {
        $good = [
            'format' => MissionReader::FORMAT, 'name' => 'x', 'camera' => ['width' => 400, 'height' => 300, 'f' => 380, 'solve' => ['f']],
            'sd' => ['plan' => 1, 'up' => 2], 'above' => 50, 'images' => array_map(static fn (int $i): array => [
                'file' => "$i.jpg", 'e' => 1.0 * $i, 'n' => 2, 'h' => 3,
            ], [1, 2, 3]),
        ];
        $mission = MissionReader::read(json_encode($good, \JSON_THROW_ON_ERROR));
        self::assertSame([200.0, 150.0, [0], null], [$mission->camera[1], $mission->camera[2], $mission->solved, $mission->angles[0]]);
        foreach ([
            [['camera' => ['width' => 400, 'height' => 300]], 'focal length'], [['above' => null], 'height above ground'],
            [['images' => [$good['images'][0], $good['images'][0], $good['images'][1]]], 'twice'], [['system' => 'here'], 'EPSG:'],
            [['images' => \array_slice($good['images'], 0, 2)], 'from 3'],
        ] as [$change, $words]) {
            try {
                MissionReader::read(json_encode(array_filter($change + $good), \JSON_THROW_ON_ERROR));
                self::fail($words);
            } catch (UnusableInput $fault) {
                self::assertStringContainsString($words, $fault->getMessage());
            }
        }
    }
}
