<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Surface\ConstrainedDelaunay;
use Mensura\Surface\Contours;
use Mensura\Surface\Locator;
use Mensura\Surface\Predicate;
use Mensura\Surface\SegmentIndex;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Properties that any constrained Delaunay triangulation has, on random and on awkward input. */
final class ConstraintTest extends TestCase
{
    /** @return iterable<string, array{int, bool}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 12; ++$seed) {
            yield "random $seed" => [$seed, false];
            yield "on a grid $seed" => [$seed, true];
        }
    }

    #[DataProvider('seeds')]
    public function testForcedEdgesStandTheAreaStaysAndTheRestIsDelaunay(int $seed, bool $grid): void
    {
        mt_srand($seed);
        $x = $y = [];
        for ($i = 0; $i < 150; ++$i) {
            $x[] = (float) ($grid ? $i % 15 : mt_rand(0, 10000));
            $y[] = (float) ($grid ? intdiv($i, 15) : mt_rand(0, 10000));
        }
        $plain = (new ConstrainedDelaunay($x, $y))->result();
        $constrained = new ConstrainedDelaunay($x, $y);
        // Segments that do not cross each other: a fan from one vertex.
        $hub = mt_rand(0, 149);
        $wanted = [];
        for ($k = 0; $k < 12; ++$k) {
            $to = mt_rand(0, 149);
            if ($to !== $hub) {
                $constrained->insert($hub, $to);
                $wanted[] = $to;
            }
        }
        $result = $constrained->result();
        self::assertEqualsWithDelta($this->area($x, $y, $plain['triangles']), $this->area($x, $y, $result['triangles']), 1e-6);
        self::assertSame(\count($plain['triangles']), \count($result['triangles']));
        foreach ($wanted as $to) {
            self::assertTrue($this->covered($x, $y, $hub, $to, $result['triangles']), "from $hub to $to");
        }
        foreach ($result['opposite'] as $h => $o) {
            if ($o < 0) {
                continue;
            }
            self::assertSame($h, $result['opposite'][$o]);
            $u = $result['triangles'][$h];
            $v = $result['triangles'][2 === $h % 3 ? $h - 2 : $h + 1];
            if (isset($result['constraints'][$u < $v ? "$u $v" : "$v $u"])) {
                continue;
            }
            [$a, $b, $c] = \array_slice($result['triangles'], $h - $h % 3, 3);
            $q = $result['triangles'][$o - $o % 3 + ($o + 2) % 3];
            self::assertLessThanOrEqual(0.0, Predicate::inCircle($x[$a], $y[$a], $x[$b], $y[$b], $x[$c], $y[$c], $x[$q], $y[$q]));
        }
    }

    public function testABoundaryThatReachesBeyondThePointsCutsOnlyWhatIsThere(): void
    {
        $tin = $this->build([[0, 0, 1], [10, 0, 1], [10, 10, 1], [0, 10, 1], [5, 5, 2]], [new SurfaceLine(SurfaceLine::BOUNDARY, 'b', [[-5.0, -5.0, null], [5.0, -5.0, null], [5.0, 15.0, null], [-5.0, 15.0, null]])]);
        self::assertEqualsWithDelta(50.0, $tin->statistics()['planArea'], 1e-6);
        // Half of the square under a pyramid of height one: half of 100 * (1 + 1 / 3).
        self::assertEqualsWithDelta(0.5 * 100.0 * (1.0 + 1.0 / 3.0), Volume::againstElevation($tin, 0.0)['cut'], 1e-5);
    }

    public function testTwoBoundariesAreBothKeptAndAVoidIsTaken(): void
    {
        $points = [];
        for ($i = 0; $i <= 20; ++$i) {
            for ($j = 0; $j <= 10; ++$j) {
                $points[] = [$i, $j, 0.1 * $i];
            }
        }
        $square = static fn (string $role, float $x, float $y, float $side): SurfaceLine => new SurfaceLine($role, $role, [[$x, $y, null], [$x + $side, $y, null], [$x + $side, $y + $side, null], [$x, $y + $side, null]]);
        $tin = $this->build($points, [$square(SurfaceLine::BOUNDARY, 1.5, 1.5, 5.0), $square(SurfaceLine::BOUNDARY, 12.25, 2.0, 4.0), $square(SurfaceLine::VOID, 3.0, 3.0, 1.0)]);
        self::assertEqualsWithDelta(25.0 + 16.0 - 1.0, $tin->statistics()['planArea'], 1e-6);
    }

    public function testABoundaryWithHeightsShapesTheSurface(): void
    {
        $points = [[0, 0, 0], [20, 0, 0], [20, 20, 0], [0, 20, 0]];
        $tin = $this->build($points, [new SurfaceLine(SurfaceLine::BOUNDARY, 'b', [[5.0, 5.0, 3.0], [15.0, 5.0, 3.0], [15.0, 15.0, 3.0], [5.0, 15.0, 3.0]])]);
        self::assertEqualsWithDelta(300.0, Volume::againstElevation($tin, 0.0)['cut'], 1e-9);
    }

    public function testBreaklinesThatMeetShareTheirPoint(): void
    {
        // A tee and a cross, all at one height where they meet.
        $points = [[0, 0, 0], [20, 0, 0], [20, 20, 0], [0, 20, 0]];
        $tin = $this->build($points, [
            new SurfaceLine(SurfaceLine::BREAKLINE, 'a', [[2.0, 10.0, 1.0], [18.0, 10.0, 1.0]]),
            new SurfaceLine(SurfaceLine::BREAKLINE, 'b', [[10.0, 2.0, 1.0], [10.0, 18.0, 1.0]]),
            new SurfaceLine(SurfaceLine::BREAKLINE, 'c', [[6.0, 10.0, 1.0], [6.0, 16.0, 1.0]]),
        ]);
        $locator = new Locator($tin);
        foreach ([[3.7, 10.0], [10.0, 5.0], [10.0, 10.0], [6.0, 13.0]] as [$x, $y]) {
            self::assertEqualsWithDelta(1.0, $locator->height($x, $y), 1e-9);
        }
        self::assertNull($locator->height(25.0, 10.0));
    }

    public function testLongEdgesAreLeftOut(): void
    {
        $points = [[0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0], [50, 0, 0], [51, 0, 0], [50, 1, 0], [51, 1, 0]];
        $tin = $this->build($points, [], 5.0);
        self::assertEqualsWithDelta(2.0, $tin->statistics()['planArea'], 1e-12);
        self::assertSame(4, $tin->triangleCount());
        $this->expectExceptionMessage('no triangle is left');
        $this->build($points, [], 0.5);
    }

    /** A flat top exactly at a level: its rim is the contour, once around. */
    public function testAPlateauAtALevelGivesItsRim(): void
    {
        $points = [[0, 0, 0], [40, 0, 0], [40, 40, 0], [0, 40, 0], [10, 10, 5], [30, 10, 5], [30, 30, 5], [10, 30, 5], [20, 20, 5]];
        $rim = new SurfaceLine(SurfaceLine::BREAKLINE, 'rim', [[10.0, 10.0, 5.0], [30.0, 10.0, 5.0], [30.0, 30.0, 5.0], [10.0, 30.0, 5.0], [10.0, 10.0, 5.0]]);
        $top = array_values(array_filter(Contours::of($this->build($points, [$rim]), 2.5), static fn (array $l): bool => 5.0 === $l['h']));
        self::assertEqualsWithDelta(80.0, $top[0]['length'], 1e-9);
    }

    public function testTooManyContoursAreRefused(): void
    {
        $this->expectExceptionMessage('choose a larger one');
        Contours::of($this->build([[0, 0, 0], [1, 0, 0], [0, 1, 1000]]), 0.001);
    }

    public function testSegmentPairsMissNone(): void
    {
        mt_srand(17);
        $segments = [];
        for ($i = 0; $i < 120; ++$i) {
            [$x, $y] = [mt_rand(0, 1000) / 10, mt_rand(0, 1000) / 10];
            $segments[] = [$x, $y, $x + mt_rand(-300, 300) / 10, $y + mt_rand(-300, 300) / 10];
        }
        $offered = [];
        foreach (SegmentIndex::pairs($segments) as [$i, $j]) {
            self::assertArrayNotHasKey("$i $j", $offered);
            $offered["$i $j"] = true;
        }
        $meetings = 0;
        for ($j = 1; $j < 120; ++$j) {
            for ($i = 0; $i < $j; ++$i) {
                if (null !== SegmentIndex::meeting($segments[$i], $segments[$j])) {
                    self::assertArrayHasKey("$i $j", $offered);
                    ++$meetings;
                }
            }
        }
        self::assertGreaterThan(100, $meetings);
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<int>   $triangles
     */
    private function area(array $x, array $y, array $triangles): float
    {
        $area = 0.0;
        foreach (array_chunk($triangles, 3) as [$a, $b, $c]) {
            $twice = ($x[$b] - $x[$a]) * ($y[$c] - $y[$a]) - ($x[$c] - $x[$a]) * ($y[$b] - $y[$a]);
            self::assertGreaterThan(0.0, $twice, 'a triangle lies the wrong way round');
            $area += 0.5 * $twice;
        }

        return $area;
    }

    /**
     * True when edges of triangles lead straight from one vertex to the other.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<int>   $triangles
     */
    private function covered(array $x, array $y, int $from, int $to, array $triangles): bool
    {
        $next = [];
        foreach ($triangles as $h => $u) {
            $v = $triangles[2 === $h % 3 ? $h - 2 : $h + 1];
            $next[$u][] = $v;
            $next[$v][] = $u;
        }
        while (true) {
            $step = null;
            foreach ($next[$from] ?? [] as $v) {
                $ahead = ($x[$v] - $x[$from]) * ($x[$to] - $x[$from]) + ($y[$v] - $y[$from]) * ($y[$to] - $y[$from]);
                if (($x[$v] === $x[$to] && $y[$v] === $y[$to]) || 0.0 === Predicate::orient($x[$from], $y[$from], $x[$to], $y[$to], $x[$v], $y[$v]) && $ahead > 0.0) {
                    $step = $v;
                }
            }
            if (null === $step) {
                return false;
            }
            if ($x[$step] === $x[$to] && $y[$step] === $y[$to]) {
                return true;
            }
            $from = $step;
        }
    }

    /**
     * @param list<array{float|int, float|int, float|int}> $points
     * @param list<SurfaceLine>                            $lines
     */
    private function build(array $points, array $lines = [], ?float $maxEdge = null): Tin
    {
        $column = static fn (int $k): array => array_map(static fn (array $p): float => (float) $p[$k], $points);

        return (new SurfaceBuilder($column(0), $column(1), $column(2), array_map(static fn (int $i): string => "P$i", array_keys($points)), $lines))->build($maxEdge);
    }
}
