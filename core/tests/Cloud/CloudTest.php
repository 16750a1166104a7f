<?php

declare(strict_types=1);

namespace Mensura\Tests\Cloud;

use Mensura\Cloud\CloudFigures;
use Mensura\Cloud\Crop;
use Mensura\Cloud\Neighbours;
use Mensura\Cloud\Noise;
use Mensura\Cloud\PointBlock;
use Mensura\Cloud\Thin;
use Mensura\Fault\UnusableInput;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Against definitions worked out the long way: every point with every other. */
final class CloudTest extends TestCase
{
    /** Two clusters, a wall, one place five times, one point far away. */
    private static function cloud(int $count = 600): PointBlock
    {
        $r = new Randomizer(new Mt19937(7));
        $u = static fn (float $w): float => $w * $r->getInt(0, 1_000_000) / 1e6;
        $p = new PointBlock();
        for ($i = 0; $i < $count; ++$i) {
            [$e, $n, $h] = match ($i % 3) {
                0 => [$u(10.0), $u(10.0), 0.1 * $u(1.0)], 1 => [200.0 + $u(1.0), $u(1.0), $u(1.0)], default => [50.0, $u(30.0), $u(8.0)],
            };
            $p->x[] = 400_000.0 + ($i < 5 ? 1.0 : $e);
            $p->y[] = 5_000_000.0 + ($i < 5 ? 1.0 : $n);
            $p->z[] = $i < 5 ? 0.0 : $h;
            $p->classes[] = $i % 3;
        }
        $p->x[] = 405_000.0;
        $p->y[] = 5_000_000.0;
        $p->z[] = 900.0;
        $p->classes[] = 9;

        return $p;
    }

    /** @return list<float> distances to the others, nearest first */
    private static function all(PointBlock $p, int $of): array
    {
        $d = [];
        foreach ($p->x as $i => $x) {
            if ($i !== $of) {
                $d[] = sqrt(($x - $p->x[$of]) ** 2 + ($p->y[$i] - $p->y[$of]) ** 2 + ($p->z[$i] - $p->z[$of]) ** 2);
            }
        }
        sort($d);

        return $d;
    }

    public function testNeighboursAreTheNearest(): void
    {
        $p = self::cloud();
        $neighbours = new Neighbours($p->x, $p->y, $p->z);
        for ($i = 0; $i < $p->count(); ++$i) {
            $all = self::all($p, $i);
            foreach ([1, 8] as $count) {
                foreach ($neighbours->distances($i, $count) as $k => $d) {
                    self::assertEqualsWithDelta($all[$k], $d, 1e-9, "$i $count");
                }
                self::assertCount($count, $neighbours->distances($i, $count));
            }
        }
        self::assertCount(600, $neighbours->distances(3, 5000), 'no more than there are');
        self::assertSame([], (new Neighbours([1.0], [1.0], [1.0]))->distances(0, 8));
        self::assertSame([0.0], (new Neighbours([1.0, 1.0], [1.0, 1.0], [1.0, 1.0]))->distances(0, 8));
    }

    /** Rusu et al. 2008, section 3.2. */
    public function testNoiseStandsAlone(): void
    {
        $p = self::cloud();
        $means = [];
        foreach (array_keys($p->x) as $i) {
            $means[] = array_sum(\array_slice(self::all($p, $i), 0, 8)) / 8;
        }
        $mean = array_sum($means) / \count($means);
        $sd = sqrt(array_sum(array_map(static fn (float $m): float => ($m - $mean) ** 2, $means)) / \count($means));
        $wanted = array_keys(array_filter($means, static fn (float $m): bool => $m > $mean + 3.0 * $sd));
        self::assertSame([600], $wanted);
        self::assertSame($wanted, array_keys(Noise::of($p->x, $p->y, $p->z)));
        self::assertSame([], Noise::of([1.0, 2.0], [1.0, 2.0], [1.0, 900.0]), 'too few to say');
    }

    public function testOneOfACubeStaysTheOneNearestItsMiddle(): void
    {
        $p = self::cloud();
        foreach ([0.3, 1.0, 250.0] as $side) {
            $best = [];
            foreach ($p->x as $i => $x) {
                $cube = [floor($x / $side), floor($p->y[$i] / $side), floor($p->z[$i] / $side)];
                $away = ($x - ($cube[0] + 0.5) * $side) ** 2 + ($p->y[$i] - ($cube[1] + 0.5) * $side) ** 2
                    + ($p->z[$i] - ($cube[2] + 0.5) * $side) ** 2;
                $key = implode(' ', $cube);
                if (!isset($best[$key]) || $away < $best[$key][0]) {
                    $best[$key] = [$away, $i];
                }
            }
            $thin = new Thin($side);
            foreach (array_chunk(array_keys($p->x), 70) as $part) {
                $thin->take($p->only($part));
            }
            $kept = array_map(null, $thin->kept->x, $thin->kept->y, $thin->kept->z, $thin->kept->classes);
            $wanted = array_map(static fn (array $b): array => [$p->x[$b[1]], $p->y[$b[1]], $p->z[$b[1]], $p->classes[$b[1]]], $best);
            sort($kept);
            sort($wanted);
            self::assertSame($wanted, $kept);
        }
    }

    public function testAPolygonWithAHoleKeepsItsEdges(): void
    {
        $outer = [[0.0, 0.0], [10.0, 0.0], [10.0, 10.0], [0.0, 10.0], [0.0, 0.0]];
        $hole = [[4.0, 4.0], [6.0, 4.0], [6.0, 6.0], [4.0, 6.0], [4.0, 4.0]];
        $crop = Crop::areas([[$outer, $hole], [[[20.0, 0.0], [30.0, 0.0], [25.0, 8.0], [20.0, 0.0]]]]);
        foreach ([
            [5.0, 1.0, true], [5.0, 5.0, false], [0.0, 5.0, true], [10.0, 10.0, true], [4.0, 5.0, true], [10.001, 5.0, false],
            [25.0, 3.0, true], [21.0, 6.0, false], [15.0, 5.0, false],
        ] as [$x, $y, $is]) {
            self::assertSame($is, $crop->holds($x, $y), "$x $y");
        }
        self::assertTrue(Crop::box(0.0, 0.0, 1.0, 1.0)->holds(1.0, 0.0));
        $this->expectException(UnusableInput::class);
        Crop::box(1.0, 0.0, 0.0, 1.0);
    }

    public function testFigures(): void
    {
        $figures = new CloudFigures(1.0);
        self::assertSame([null, null, null], [$figures->extent(), $figures->density(), $figures->spacing()]);
        $p = new PointBlock();
        for ($i = 0; $i < 20; ++$i) {
            for ($j = 0; $j < 20; ++$j) {
                [$p->x[], $p->y[], $p->z[], $p->classes[]] = [0.25 * $i + 0.1, 0.25 * $j + 0.1, 3.0, $i % 2];
            }
        }
        $figures->take($p);
        self::assertSame([400, [0 => 200, 1 => 200]], [$figures->count, $figures->classes()]);
        self::assertEqualsWithDelta(16.0, $figures->density(), 1e-12);
        self::assertEqualsWithDelta(0.25, $figures->spacing(), 1e-12);
        $feet = new CloudFigures(0.3048);
        $feet->take($p->scaled(1.0 / 0.3048));
        self::assertEqualsWithDelta(16.0, $feet->density(), 1e-9, 'metres, whatever the unit of the cloud');
        self::assertEqualsWithDelta(0.25, $feet->spacing(), 1e-9);
    }
}
