<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Surface\Delaunay;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What holds for volumes and triangulations whatever the points are. */
final class VolumeLawsTest extends TestCase
{
    /** @return iterable<string, array{int, int}> seed, points */
    public static function random(): iterable
    {
        foreach ([1 => 12, 2 => 60, 3 => 250, 4 => 1000] as $seed => $count) {
            yield "$count points" => [$seed, $count];
        }
    }

    /** Euler: triangles = 2 n - 2 - b, with b points on the hull; the triangles tile the hull. */
    #[DataProvider('random')]
    public function testTrianglesTileTheHull(int $seed, int $count): void
    {
        [$x, $y] = self::points($seed, $count);
        $triangles = array_chunk(Delaunay::triangulate(...SurfaceBuilder::scaled($x, $y))['triangles'], 3);
        $hull = self::hull($x, $y);
        self::assertCount(2 * $count - 2 - \count($hull), $triangles);
        $area = 0.0;
        foreach ($triangles as [$a, $b, $c]) {
            $twice = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]);
            self::assertGreaterThan(0.0, $twice, 'Counter-clockwise, never empty.');
            $area += $twice / 2.0;
        }
        self::assertEqualsWithDelta(self::area($hull, $x, $y), $area, 1e-6 * $area);
    }

    /** No point lies inside the circle of a triangle: by brute force over all of them. */
    public function testEmptyCircles(): void
    {
        [$x, $y] = self::points(5, 90);
        foreach (array_chunk(Delaunay::triangulate(...SurfaceBuilder::scaled($x, $y))['triangles'], 3) as [$a, $b, $c]) {
            $d = 2.0 * ($x[$a] * ($y[$b] - $y[$c]) + $x[$b] * ($y[$c] - $y[$a]) + $x[$c] * ($y[$a] - $y[$b]));
            $sq = static fn (int $i): float => $x[$i] ** 2 + $y[$i] ** 2;
            $cx = ($sq($a) * ($y[$b] - $y[$c]) + $sq($b) * ($y[$c] - $y[$a]) + $sq($c) * ($y[$a] - $y[$b])) / $d;
            $cy = ($sq($a) * ($x[$c] - $x[$b]) + $sq($b) * ($x[$a] - $x[$c]) + $sq($c) * ($x[$b] - $x[$a])) / $d;
            $r = hypot($x[$a] - $cx, $y[$a] - $cy);
            foreach ($x as $i => $px) {
                if ($i !== $a && $i !== $b && $i !== $c) {
                    self::assertGreaterThan($r * (1.0 - 1e-9), hypot($px - $cx, $y[$i] - $cy));
                }
            }
        }
    }

    /** Cut less fill is the volume under the surface less that of the prism, whatever the elevation. */
    #[DataProvider('random')]
    public function testTheNetIsLinearInTheElevation(int $seed, int $count): void
    {
        $tin = self::tin($seed, $count);
        $plan = $tin->statistics()['planArea'];
        $base = self::net(Volume::againstElevation($tin, 0.0));
        foreach ([-20.0, 97.3, 104.2, 500.0] as $elevation) {
            $v = Volume::againstElevation($tin, $elevation);
            self::assertEqualsWithDelta($base - $plan * $elevation, self::net($v), 1e-7 * $plan * 500.0);
            self::assertEqualsWithDelta($plan, $v['areaCut'] + $v['areaFill'], 1e-7 * $plan);
            self::assertGreaterThanOrEqual(0.0, min($v['cut'], $v['fill']));
        }
        self::assertSame(0.0, Volume::againstElevation($tin, 1000.0)['cut']);
        self::assertSame(0.0, Volume::againstElevation($tin, -1000.0)['fill']);
    }

    /** The derivative of cut by the elevation is the area that is cut. */
    public function testLoweringTheFormationCutsByItsArea(): void
    {
        $tin = self::tin(3, 250);
        $v = Volume::againstElevation($tin, 105.0);
        $step = 1e-4;
        $lower = Volume::againstElevation($tin, 105.0 - $step);
        $upper = Volume::againstElevation($tin, 105.0 + $step);
        self::assertEqualsWithDelta($v['areaCut'], ($lower['cut'] - $upper['cut']) / (2.0 * $step), 1e-3 * $v['areaCut']);
        self::assertEqualsWithDelta($v['areaFill'], ($upper['fill'] - $lower['fill']) / (2.0 * $step), 1e-3 * $v['areaFill']);
    }

    /** A surface against another: exchanged, cut and fill change places; against itself there is nothing. */
    public function testExchangeTurnsCutIntoFill(): void
    {
        $a = self::tin(6, 120);
        $b = self::tin(7, 140);
        $there = Volume::againstSurface($a, $b);
        $back = Volume::againstSurface($b, $a);
        self::assertEqualsWithDelta($there['cut'], $back['fill'], 1e-6 * $there['cut']);
        self::assertEqualsWithDelta($there['fill'], $back['cut'], 1e-6 * $there['cut']);
        $none = Volume::againstSurface($a, $a);
        self::assertEqualsWithDelta(0.0, $none['cut'] + $none['fill'], 1e-6);
    }

    /** A level surface is an elevation. */
    public function testALevelSurfaceIsAnElevation(): void
    {
        $tin = self::tin(8, 200);
        $level = self::build([-10.0, 310.0, 310.0, -10.0], [-10.0, -10.0, 310.0, 310.0], [104.0, 104.0, 104.0, 104.0]);
        $one = Volume::againstElevation($tin, 104.0);
        $other = Volume::againstSurface($tin, $level);
        self::assertEqualsWithDelta($one['cut'], $other['cut'], 1e-6 * $one['cut']);
        self::assertEqualsWithDelta($one['fill'], $other['fill'], 1e-6 * $one['cut']);
    }

    /** Moved and turned, a surface keeps its areas and volumes. */
    public function testVolumesDoNotDependOnTheAxes(): void
    {
        [$x, $y, $z] = self::points(9, 150);
        $before = Volume::againstElevation(self::build($x, $y, $z), 105.0);
        $p = $q = [];
        foreach ($x as $i => $e) {
            $p[] = 493000.0 + cos(0.7) * $e - sin(0.7) * $y[$i];
            $q[] = 6028000.0 + sin(0.7) * $e + cos(0.7) * $y[$i];
        }
        $after = Volume::againstElevation(self::build($p, $q, $z), 105.0);
        self::assertEqualsWithDelta($before['cut'], $after['cut'], 1e-4 * $before['cut']);
        self::assertEqualsWithDelta($before['fill'], $after['fill'], 1e-4 * $before['fill']);
    }

    /** @return array{list<float>, list<float>, list<float>} */
    private static function points(int $seed, int $count): array
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $x = $y = $z = [];
        for ($i = 0; $i < $count; ++$i) {
            $x[] = $random->getInt(0, 3000000) / 10000.0;
            $y[] = $random->getInt(0, 3000000) / 10000.0;
            $z[] = 100.0 + $random->getInt(0, 100000) / 10000.0;
        }

        return [$x, $y, $z];
    }

    private static function tin(int $seed, int $count): Tin
    {
        return self::build(...self::points($seed, $count));
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     */
    private static function build(array $x, array $y, array $z): Tin
    {
        return Tin::ofTriangles($x, $y, $z, Delaunay::triangulate(...SurfaceBuilder::scaled($x, $y))['triangles']);
    }

    /** @param array<string, mixed> $v */
    private static function net(array $v): float
    {
        return $v['cut'] - $v['fill'];
    }

    /**
     * Andrew's monotone chain, as a check from another side.
     *
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return list<int>
     */
    private static function hull(array $x, array $y): array
    {
        $order = array_keys($x);
        usort($order, static fn (int $a, int $b): int => $x[$a] <=> $x[$b] ?: $y[$a] <=> $y[$b]);
        $hull = [];
        foreach ([$order, array_reverse($order)] as $pass) {
            $start = \count($hull);
            foreach ($pass as $i) {
                while (\count($hull) >= $start + 2) {
                    [$a, $b] = \array_slice($hull, -2);
                    if (($x[$b] - $x[$a]) * ($y[$i] - $y[$a]) - ($x[$i] - $x[$a]) * ($y[$b] - $y[$a]) > 0.0) {
                        break;
                    }
                    array_pop($hull);
                }
                $hull[] = $i;
            }
            array_pop($hull);
        }

        return $hull;
    }

    /**
     * @param list<int>   $ring
     * @param list<float> $x
     * @param list<float> $y
     */
    private static function area(array $ring, array $x, array $y): float
    {
        $twice = 0.0;
        foreach ($ring as $k => $i) {
            $j = $ring[($k + 1) % \count($ring)];
            $twice += $x[$i] * $y[$j] - $x[$j] * $y[$i];
        }

        return $twice / 2.0;
    }
}
