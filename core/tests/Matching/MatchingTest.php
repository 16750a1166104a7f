<?php

declare(strict_types=1);

namespace Mensura\Tests\Matching;

use Demo\Flight\FlightScene;
use Mensura\Matching\Features;
use Mensura\Matching\GreyImage;
use Mensura\Matching\PairCheck;
use Mensura\Matching\TiePoints;
use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;

/** Features and matches against the scene that images were rendered from: it knows where every pixel lies on the ground. */
#[CoversClass(Features::class)]
#[CoversClass(TiePoints::class)]
#[CoversClass(PairCheck::class)]
final class MatchingTest extends TestCase
{
    /** Neighbours of a strip, and one of the next that is flown the other way: it is turned by half a circle. */
    private const IMAGES = [0, 1, 9];

    public function testTiePointsLieWhereTheSceneHasThem(): void
    {
        $scene = new FlightScene(493800.0, 6028300.0, 231.0);
        $features = array_map(static fn (int $i): Features => Features::of(
            GreyImage::of(FlightScene::WIDTH, FlightScene::HEIGHT, $scene->render($i)), 500,
        ), self::IMAGES);
        $points = new TiePoints($features);
        foreach ([[0, 1], [0, 2], [1, 2]] as [$a, $b]) {
            self::assertGreaterThan(80, $points->join($a, $b, FlightScene::SAID, FlightScene::SAID), "$a $b");
        }
        $off = [];
        foreach ($points->tracks() as $track) {
            $first = array_key_first($track);
            $ground = $scene->meets(self::IMAGES[$first], ...$track[$first]);
            foreach ($track as $k => [$x, $y]) {
                $pixel = $scene->pixel(self::IMAGES[$k], $ground);
                if ($k !== $first && null !== $pixel) {
                    $off[] = hypot($pixel[0] - $x, $pixel[1] - $y);
                }
            }
        }
        sort($off);
        self::assertGreaterThan(150, \count($off));
        self::assertLessThan(0.6, $off[intdiv(\count($off), 2)], 'Half of them to half a pixel.');
        $wrong = \count(array_filter($off, static fn (float $d): bool => $d > 3.0));
        self::assertLessThan(0.02 * \count($off), $wrong);
    }

    /** Two cameras, a sideways base, points in space: what is moved across its line does not agree (Longuet-Higgins 1981). */
    public function testWrongMatchesDoNotAgree(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        $even = static fn (float $from, float $to): float => $from + ($to - $from) * $random->getInt(0, 1 << 30) / (1 << 30);
        $x1 = $y1 = $x2 = $y2 = [];
        for ($k = 0; $k < 120; ++$k) {
            [$x, $y, $z] = [$even(-4.0, 4.0), $even(-3.0, 3.0), $even(8.0, 12.0)];
            [$x1[], $y1[]] = [$x / $z, $y / $z];
            $isWrong = 0 === $k % 4;
            [$x2[], $y2[]] = [($x - 1.0) / $z, $y / $z + ($isWrong ? 0.05 + 0.01 * ($k % 7) : 0.0)];
        }
        $in = PairCheck::agreeing($x1, $y1, $x2, $y2, 0.001, 1);
        $right = array_values(array_filter(range(0, 119), static fn (int $k): bool => 0 !== $k % 4));
        self::assertSame($right, $in);
        self::assertSame([], PairCheck::agreeing(\array_slice($x1, 0, 9), \array_slice($y1, 0, 9), [], [], 0.001, 1), 'Too few.');
    }

    /** A binomial keeps what is even and grows evenly; half an image has its places where they were. */
    public function testSmallerImagesKeepTheirPlaces(): void
    {
        $v = [];
        for ($y = 0; $y < 20; ++$y) {
            for ($x = 0; $x < 24; ++$x) {
                $v[] = 3.0 * ($x + 0.5) + 2.0 * ($y + 0.5);
            }
        }
        $image = GreyImage::of(24, 20, $v);
        self::assertEqualsWithDelta(3.0 * 10.3 + 2.0 * 7.9, $image->at(10.3, 7.9), 1e-12);
        $half = $image->half();
        self::assertSame([12, 10, 2.0], [$half->width, $half->height, $half->scale]);
        self::assertEqualsWithDelta(3.0 * 10.0 + 2.0 * 8.0, $half->at(5.0, 4.0), 1e-12);
        self::assertNull($image->at(0.2, 5.0));
    }
}
