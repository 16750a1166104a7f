<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Surface\Contours;
use Mensura\Surface\Locator;
use Mensura\Surface\SmoothedSurface;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Smooth contours: nearer to the ground they were sampled from, and never across each other. */
final class SmoothedSurfaceTest extends TestCase
{
    /** A bowl sampled every 10 m: contours of the flat triangles lie off its circles, smoothed ones less than half as far. */
    public function testNearerToTheTruth(): void
    {
        $bowl = self::sampled(static fn (float $x, float $y): float => ($x * $x + $y * $y) / 200.0, 10.0);
        $off = [];
        foreach (['flat' => $bowl, 'smooth' => SmoothedSurface::of($bowl, 6)] as $which => $tin) {
            $squares = $count = 0;
            foreach (Contours::of($tin, 2.0) as $level) {
                if ($level['h'] < 2.0 || $level['h'] > 8.0) {
                    continue;
                }
                foreach ($level['lines'] as $line) {
                    for ($i = 0; $i + 3 < \count($line); $i += 2) {
                        $r = hypot(0.5 * ($line[$i] + $line[$i + 2]), 0.5 * ($line[$i + 1] + $line[$i + 3]));
                        $squares += ($r - sqrt(200.0 * $level['h'])) ** 2;
                        ++$count;
                    }
                }
            }
            self::assertGreaterThan(30, $count);
            $off[$which] = sqrt($squares / $count);
        }
        self::assertLessThan(0.5 * $off['flat'], $off['smooth']);
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        return [[1], [2], [3]];
    }

    #[DataProvider('seeds')]
    public function testNeverAcrossEachOther(int $seed): void
    {
        mt_srand($seed);
        $x = $y = $z = [];
        for ($i = 0; $i < 26; ++$i) {
            [$x[], $y[], $z[]] = [mt_rand(0, 10000) / 100.0, mt_rand(0, 10000) / 100.0, mt_rand(0, 900) / 100.0];
        }
        $segments = [];
        foreach (Contours::of(SmoothedSurface::of((new SurfaceBuilder($x, $y, $z, []))->build(), 4), 0.5) as $level) {
            foreach ($level['lines'] as $line) {
                for ($i = 0; $i + 3 < \count($line); $i += 2) {
                    $segments[] = [$level['h'], $line[$i], $line[$i + 1], $line[$i + 2], $line[$i + 3]];
                }
            }
        }
        self::assertGreaterThan(250, \count($segments));
        $side = static fn (array $s, float $x, float $y): float => ($s[3] - $s[1]) * ($y - $s[2]) - ($s[4] - $s[2]) * ($x - $s[1]);
        foreach ($segments as $i => $s) {
            foreach (\array_slice($segments, $i + 1) as $o) {
                if ($s[0] !== $o[0] && $side($s, $o[1], $o[2]) * $side($s, $o[3], $o[4]) < -1e-12
                    && $side($o, $s[1], $s[2]) * $side($o, $s[3], $s[4]) < -1e-12) {
                    self::fail(\sprintf('The contours %.1f and %.1f cross near %.2f, %.2f.', $s[0], $o[0], $s[1], $s[2]));
                }
            }
        }
    }

    /** Neighbours share their vertices: no gap opens, so the border is as long as before, and the vertices keep their heights. */
    public function testNoGapsAndTheVerticesStay(): void
    {
        $tin = self::sampled(static fn (float $x, float $y): float => sin($x / 7.0) + cos($y / 5.0), 9.0);
        $smooth = SmoothedSurface::of($tin, 3);
        $open = static fn (Tin $t): int => \count(array_filter($t->opposite, static fn (int $o): bool => $o < 0));
        self::assertSame(9 * $tin->triangleCount(), $smooth->triangleCount());
        self::assertSame(3 * $open($tin), $open($smooth));
        self::assertSame($tin->z, \array_slice($smooth->z, 0, \count($tin->z)));
        self::assertEqualsWithDelta($tin->statistics()['planArea'], $smooth->statistics()['planArea'], 1e-9);
        self::assertGreaterThanOrEqual(min($tin->z), min($smooth->z));
        self::assertLessThanOrEqual(max($tin->z), max($smooth->z));
    }

    /** Along a breakline the ground stays as straight as it was surveyed. */
    public function testABreaklineDoesNotBend(): void
    {
        $crest = [[5.0, 50.0, 4.0], [40.0, 52.0, 7.0], [95.0, 50.0, 5.0]];
        $x = [0.0, 100.0, 0.0, 100.0, 50.0, 50.0];
        $y = [0.0, 0.0, 100.0, 100.0, 20.0, 80.0];
        $line = new SurfaceLine(SurfaceLine::BREAKLINE, 'crest', $crest);
        $tin = (new SurfaceBuilder($x, $y, [0.0, 0.0, 0.0, 0.0, 1.0, 1.0], [], [$line]))->build();
        $smooth = new Locator(SmoothedSurface::of($tin, 4));
        self::assertEqualsWithDelta(5.5, $smooth->height(22.5, 51.0), 1e-9);
        self::assertEqualsWithDelta(6.0, $smooth->height(67.5, 51.0), 1e-9);
    }

    /** A plane is its own smooth surface. */
    public function testAPlaneStaysPlane(): void
    {
        $smooth = SmoothedSurface::of(self::sampled(static fn (float $x, float $y): float => 3.0 + 0.2 * $x - 0.1 * $y, 15.0), 4);
        foreach ($smooth->z as $i => $z) {
            self::assertEqualsWithDelta(3.0 + 0.2 * $smooth->x[$i] - 0.1 * $smooth->y[$i], $z, 1e-12);
        }
    }

    /** @param \Closure(float, float): float $ground */
    private static function sampled(\Closure $ground, float $every): Tin
    {
        $x = $y = $z = [];
        for ($e = -45.0; $e <= 45.0; $e += $every) {
            for ($n = -45.0; $n <= 45.0; $n += $every) {
                [$x[], $y[], $z[]] = [$e, $n, $ground($e, $n)];
            }
        }

        return (new SurfaceBuilder($x, $y, $z, []))->build();
    }
}
