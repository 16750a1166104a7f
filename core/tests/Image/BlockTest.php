<?php

declare(strict_types=1);

namespace Mensura\Tests\Image;

use Mensura\Exchange\BlockJson\BlockJsonReader;
use Mensura\Exchange\BlockJson\BlockJsonWriter;
use Mensura\Fault\UnusableInput;
use Mensura\Image\BlockAdjustment;
use Mensura\Image\Lens;
use Mensura\Image\Rotation;
use Mensura\Image\UsedRays;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Blocks solved by scipy.optimize.least_squares (fixtures/image/make.py); slopes against differences; facts of the trade. */
final class BlockTest extends TestCase
{
    private const CAMERA = [1200.0, 801.0, 598.0, -0.08, 0.02, -0.003, 0.0004, -0.0003];

    /**
     * @param array<string, mixed> $block
     *
     * @return array<string, mixed>
     */
    private static function solve(array $block): array
    {
        $b = (new BlockJsonReader())->read(json_encode($block, \JSON_THROW_ON_ERROR));
        $used = UsedRays::of($b);
        $adjustment = new BlockAdjustment($b, $used);

        return json_decode(json_encode(BlockJsonWriter::document($b, $used, $adjustment, $adjustment->run()), \JSON_THROW_ON_ERROR), true);
    }

    /** @return iterable<string, array{string}> */
    public static function blocks(): iterable
    {
        yield 'nadir, one camera, blunders, an image without angles' => ['image/block-nadir.json'];
        yield 'about an object, two cameras, positions weighted' => ['image/block-close.json'];
    }

    #[DataProvider('blocks')]
    public function testTheSolutionIsThatOfAnotherProgram(string $name): void
    {
        ['block' => $block, 'expected' => $expected] = Fixture::json($name);
        $result = self::solve($block);
        self::assertTrue($result['converged']);
        self::assertSame($expected['redundancy'], $result['redundancy']);
        self::assertEqualsWithDelta($expected['sigma0'], $result['sigma0'], 1e-6);
        $images = array_column($result['images'], null, 'id');
        foreach ($expected['images'] as $image) {
            $found = $images[$image['id']];
            foreach (['e', 'n', 'h'] as $k => $axis) {
                self::assertEqualsWithDelta($image['position'][$k], $found[$axis], 0.005 * $image['positionSd'][$k], $image['id'].$axis);
                self::assertEqualsWithDelta(1.0, $found['sd'][$axis] / $image['positionSd'][$k], 1e-3, $image['id'].$axis);
            }
            self::assertEqualsWithDelta(
                Rotation::of(...$image['angles']), Rotation::of($found['omega'], $found['phi'], $found['kappa']), 2e-7, $image['id'],
            );
        }
        $points = array_column($result['points'], null, 'id');
        foreach ($expected['points'] as $point) {
            foreach (['e', 'n', 'h'] as $k => $axis) {
                $sd = $point['sd'][$k];
                self::assertEqualsWithDelta($point['place'][$k], $points[$point['id']][$axis], 0.005 * $sd + 1e-9, $point['id'].$axis);
                self::assertEqualsWithDelta($sd, $points[$point['id']]['sd'][$axis], 1e-3 * $sd, $point['id'].$axis);
            }
        }
        $cameras = array_column($result['cameras'], null, 'id');
        foreach ($expected['cameras'] as $c) {
            self::assertEqualsWithDelta($c['value'], $cameras[$c['id']][$c['name']], 0.005 * $c['sd'], $c['id'].' '.$c['name']);
            self::assertEqualsWithDelta(1.0, $cameras[$c['id']]['sd'][$c['name']] / $c['sd'], 1e-3, $c['id'].' '.$c['name']);
        }
        $rays = array_column($result['rays'], null, 'index');
        self::assertCount(\count($expected['rays']), $rays, 'no ray of a check point');
        foreach ($expected['rays'] as [$index, $vx, $vy, $wx, $wy]) {
            self::assertEqualsWithDelta([$vx, $vy], [$rays[$index]['vx'], $rays[$index]['vy']], 0.003, "ray $index");
            $worst = abs($wx) > abs($wy) ? $wx : $wy;
            self::assertEqualsWithDelta(abs($worst), abs($rays[$index]['standardized']), 0.02, "ray $index");
            self::assertSame(abs($worst) > 3.29, $rays[$index]['flagged'], "ray $index");
        }
        foreach ($expected['check'] as $point) {
            foreach (['e', 'n', 'h'] as $k => $axis) {
                self::assertEqualsWithDelta($point['place'][$k], $points[$point['id']][$axis], 2e-5, $point['id'].$axis);
            }
        }
    }

    /** Where it begins does not matter: control and rays say all. */
    #[DataProvider('blocks')]
    public function testAnglesAreFoundFromTheRays(string $name): void
    {
        ['block' => $block] = Fixture::json($name);
        $with = self::solve($block);
        foreach ($block['images'] as $i => $image) {
            $block['images'][$i] = array_diff_key($image, ['omega' => true, 'phi' => true, 'kappa' => true]);
        }
        $without = self::solve($block);
        self::assertEqualsWithDelta($with['sigma0'], $without['sigma0'], 1e-8);
        foreach ($with['images'] as $i => $image) {
            foreach (['e', 'n', 'h', 'omega', 'phi', 'kappa'] as $k) {
                self::assertEqualsWithDelta($image[$k], $without['images'][$i][$k], 2e-3 * $image['sd'][$k], $image['id'].$k);
            }
        }
    }

    public function testCheckPointsChangeNothing(): void
    {
        ['block' => $block] = Fixture::json('image/block-nadir.json');
        $with = self::solve($block);
        $isCheck = array_column(array_filter($block['points'], static fn (array $p): bool => 'check' === ($p['role'] ?? '')), 'id', 'id');
        $block['points'] = array_values(array_filter($block['points'], static fn (array $p): bool => !isset($isCheck[$p['id']])));
        $block['rays'] = array_values(array_filter($block['rays'], static fn (array $r): bool => !isset($isCheck[$r['point']])));
        $without = self::solve($block);
        self::assertNotSame([], $isCheck);
        self::assertSame($without['images'], $with['images']);
        self::assertSame([$without['sigma0'], $without['redundancy']], [$with['sigma0'], $with['redundancy']]);
        self::assertSame([null, []], [$without['check']['rms'], $without['check']['points']]);
    }

    public function testSlopesAreThoseOfDifferences(): void
    {
        foreach ([[0.1, -0.2], [-0.55, 0.4], [0.0, 0.0]] as [$x, $y]) {
            $slopes = Lens::slopes(self::CAMERA, $x, $y);
            $values = Lens::byValues(self::CAMERA, $x, $y);
            $d = 1e-6;
            [$right, $left] = [Lens::pixel(self::CAMERA, $x + $d, $y), Lens::pixel(self::CAMERA, $x - $d, $y)];
            [$up, $down] = [Lens::pixel(self::CAMERA, $x, $y + $d), Lens::pixel(self::CAMERA, $x, $y - $d)];
            $differences = [$right[0] - $left[0], $up[0] - $down[0], $right[1] - $left[1], $up[1] - $down[1]];
            self::assertEqualsWithDelta(array_map(static fn (float $v): float => $v / (2 * $d), $differences), $slopes, 1e-4);
            foreach (Lens::NAMES as $k => $name) {
                [$more, $less] = [self::CAMERA, self::CAMERA];
                $more[$k] += 1e-4;
                $less[$k] -= 1e-4;
                [$a, $b] = [Lens::pixel($more, $x, $y), Lens::pixel($less, $x, $y)];
                self::assertEqualsWithDelta([($a[0] - $b[0]) / 2e-4, ($a[1] - $b[1]) / 2e-4], $values[$k], 1e-6, $name);
            }
            self::assertEqualsWithDelta([$x, $y], Lens::direction(self::CAMERA, ...Lens::pixel(self::CAMERA, $x, $y)), 1e-12);
        }
    }

    public function testAnglesComeBack(): void
    {
        foreach ([[0.0, 0.0, 0.0], [12.0, -35.0, 170.0], [-81.0, 16.0, -176.0], [3.0, 89.0, 40.0]] as $angles) {
            self::assertEqualsWithDelta($angles, Rotation::angles(Rotation::of(...$angles)), 1e-9);
        }
        // A camera that looks down with its top to the north has no angles; turned by kappa 90 its right is the north.
        self::assertEqualsWithDelta([1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0], Rotation::of(0.0, 0.0, 0.0), 1e-15);
        $r = Rotation::of(0.0, 0.0, 90.0);
        self::assertEqualsWithDelta([0.0, 1.0, 0.0], [$r[0], $r[3], $r[6]], 1e-15);
        $from = [[0.0, 0.0, -1.0], [0.6, 0.0, -0.8], [0.0, 0.6, -0.8]];
        $turned = Rotation::of(-170.0, 40.0, 100.0);
        $to = array_map(static fn (array $v): array => [
            $turned[0] * $v[0] + $turned[1] * $v[1] + $turned[2] * $v[2], $turned[3] * $v[0] + $turned[4] * $v[1] + $turned[5] * $v[2],
            $turned[6] * $v[0] + $turned[7] * $v[1] + $turned[8] * $v[2],
        ], $from);
        self::assertEqualsWithDelta($turned, Rotation::between($from, $to), 1e-9);
    }

    /** @return iterable<string, array{\Closure(array<string, mixed>): array<string, mixed>, string}> */
    public static function bad(): iterable
    {
        $without = static fn (\Closure $keep): \Closure => static function (array $b) use ($keep): array {
            $b['rays'] = array_values(array_filter($b['rays'], $keep));

            return $b;
        };
        yield 'no datum' => [static function (array $b): array {
            foreach ($b['points'] as $k => $p) {
                if ('control' === ($p['role'] ?? '')) {
                    $b['points'][$k]['role'] = 'check';
                }
            }

            return $b;
        }, 'datum'];
        $count = [];
        yield 'an image with two rays' => [$without(static function (array $r) use (&$count): bool {
            return 'i5' !== $r['image'] || ($count[$r['image']] = ($count[$r['image']] ?? 0) + 1) < 3;
        }), 'image i5'];
        $ray = ['image' => 'i0', 'point' => 'x', 'x' => 1, 'y' => 1];
        yield 'a point that is not there' => [static fn (array $b): array => ['rays' => [$ray]] + $b, 'there is no point "x"'];
        yield 'a camera that is not there' => [static function (array $b): array {
            $b['images'][0]['camera'] = 'x';

            return $b;
        }, 'there is no camera "x"'];
        yield 'one angle of three' => [static function (array $b): array {
            unset($b['images'][0]['phi']);

            return $b;
        }, 'all three angles, or none'];
        yield 'an image twice' => [static function (array $b): array {
            $b['images'][1]['id'] = 'i0';

            return $b;
        }, 'is there twice'];
        yield 'a value no camera has' => [static function (array $b): array {
            $b['cameras'][0]['solve'] = ['k9'];

            return $b;
        }, 'no value of a camera'];
        yield 'control without coordinates' => [static function (array $b): array {
            $b['points'][] = ['id' => 'new', 'role' => 'control'];

            return $b;
        }, 'has coordinates'];
        yield 'a deviation of nothing' => [static function (array $b): array {
            $b['rays'][0]['sd'] = 0;

            return $b;
        }, 'must be positive'];
    }

    /** @param \Closure(array<string, mixed>): array<string, mixed> $spoil */
    #[DataProvider('bad')]
    public function testBadBlocksAreRefusedByName(\Closure $spoil, string $says): void
    {
        ['block' => $block] = Fixture::json('image/block-nadir.json');
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/'.preg_quote($says, '/').'/');
        self::solve($spoil($block));
    }

    public function testWhatOneImageSeesIsLeftOutAndNamed(): void
    {
        ['block' => $block] = Fixture::json('image/block-nadir.json');
        $block['points'][] = ['id' => 'lonely'];
        $block['rays'][] = ['image' => 'i0', 'point' => 'lonely', 'x' => 100, 'y' => 100];
        $block['images'][] = ['id' => 'blind', 'camera' => 'c1', 'e' => 1000, 'n' => 2000, 'h' => 160];
        $before = self::solve(Fixture::json('image/block-nadir.json')['block']);
        $result = self::solve($block);
        self::assertNull(array_column($result['points'], 'e', 'id')['lonely']);
        self::assertNull(array_column($result['images'], 'e', 'id')['blind']);
        self::assertStringContainsString('lonely', implode(' ', $result['warnings']));
        self::assertStringContainsString('blind', implode(' ', $result['warnings']));
        self::assertSame($before['redundancy'], $result['redundancy']);
    }
}
