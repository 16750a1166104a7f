<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Fault\UnusableInput;
use Mensura\Surface\ConstrainedDelaunay;
use Mensura\Surface\Contours;
use Mensura\Surface\Delaunay;
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
        $tin = $this->build(
            [[0, 0, 1], [10, 0, 1], [10, 10, 1], [0, 10, 1], [5, 5, 2]],
            [new SurfaceLine(SurfaceLine::BOUNDARY, 'b', [[-5.0, -5.0, null], [5.0, -5.0, null], [5.0, 15.0, null], [-5.0, 15.0, null]])],
        );
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
        $square = static fn (string $role, float $x, float $y, float $side): SurfaceLine => new SurfaceLine(
            $role,
            $role,
            [[$x, $y, null], [$x + $side, $y, null], [$x + $side, $y + $side, null], [$x, $y + $side, null]],
        );
        $tin = $this->build($points, [
            $square(SurfaceLine::BOUNDARY, 1.5, 1.5, 5.0), $square(SurfaceLine::BOUNDARY, 12.25, 2.0, 4.0),
            $square(SurfaceLine::VOID, 3.0, 3.0, 1.0),
        ]);
        self::assertEqualsWithDelta(25.0 + 16.0 - 1.0, $tin->statistics()['planArea'], 1e-6);
    }

    /**
     * Voids that overlap are united: |A or B| = |A| + |B| - |A and B|, and no corner of one is left inside the other.
     *
     * @param list<array{float, float}> $a
     * @param list<array{float, float}> $b
     */
    #[DataProvider('overlaps')]
    public function testOverlappingVoidsAreUnited(array $a, array $b, float $common, ?float $heightA, ?float $heightB): void
    {
        $points = [];
        for ($i = 0; $i <= 12; ++$i) {
            for ($j = 0; $j <= 12; ++$j) {
                $points[] = [$i + 0.3 * sin(5.0 * $i * $j) * ($i % 12 && $j % 12 ? 1 : 0), $j, 2.0 + 0.1 * $i - 0.2 * $j];
            }
        }
        $void = static fn (string $name, array $ring, ?float $h): SurfaceLine => new SurfaceLine(
            SurfaceLine::VOID,
            $name,
            array_map(static fn (array $v): array => [(float) $v[0], (float) $v[1], $h], $ring),
        );
        foreach ([[$a, $b, $heightA, $heightB], [$b, $a, $heightB, $heightA]] as [$first, $second, $h1, $h2]) {
            $one = $void('one', $first, $h1);
            $two = $void('two', $second, $h2);
            $tin = $this->build($points, [$one, $two]);
            self::assertEqualsWithDelta(144.0 - $one->area() - $two->area() + $common, $tin->statistics()['planArea'], 1e-5);
        }
    }

    /** @return iterable<string, array{list<array{float, float}>, list<array{float, float}>, float, ?float, ?float}> */
    public static function overlaps(): iterable
    {
        $box = static fn (float $w, float $s, float $e, float $n): array => [[$w, $s], [$e, $s], [$e, $n], [$w, $n]];
        foreach ([
            'without heights' => [null, null], 'with heights' => [2.0, 2.0], 'with other heights' => [2.0, 3.5],
            'one with heights' => [2.0, null],
        ] as $how => [$h1, $h2]) {
            yield "corners $how" => [$box(2, 2, 6, 6), $box(4, 4, 9, 8), 4.0, $h1, $h2];
            yield "a cross $how" => [$box(2, 5, 10, 6.5), $box(5.25, 1, 6, 11), 1.125, $h1, $h2];
            yield "one in the other $how" => [$box(2, 2, 9, 9), $box(3.5, 3.5, 5, 4), 0.75, $h1, $h2];
            yield "a common side $how" => [$box(2, 2, 6, 6), $box(6, 2, 8, 6), 0.0, $h1, $h2];
        }
        yield 'the same twice' => [$box(2, 2, 6, 6), $box(2, 2, 6, 6), 16.0, null, null];
        yield 'askew' => [
            [[2.1, 2.3], [7.7, 3.1], [6.2, 8.4]], [[3.0, 6.0], [5.0, 1.5], [9.0, 7.0]],
            self::common([[2.1, 2.3], [7.7, 3.1], [6.2, 8.4]], [[3.0, 6.0], [5.0, 1.5], [9.0, 7.0]]), null, null,
        ];
    }

    public function testAVoidOverTheBoundaryAndAnIsland(): void
    {
        $points = [];
        for ($i = 0; $i <= 10; ++$i) {
            for ($j = 0; $j <= 10; ++$j) {
                $points[] = [$i, $j, 1.0];
            }
        }
        $ring = static fn (
            float $w, float $s, float $e, float $n,
        ): array => [[$w, $s, null], [$e, $s, null], [$e, $n, null], [$w, $n, null]];
        $tin = $this->build($points, [
            new SurfaceLine(SurfaceLine::BOUNDARY, 'b', $ring(1, 1, 9, 9)),
            new SurfaceLine(SurfaceLine::VOID, 'v', $ring(0.5, 2.25, 5, 5)),
        ]);
        self::assertEqualsWithDelta(64.0 - 4.0 * 2.75, $tin->statistics()['planArea'], 1e-6);
        $tin = $this->build($points, [new SurfaceLine(
            SurfaceLine::VOID, 'v', $ring(2, 2, 6.5, 6),
            [new SurfaceLine(SurfaceLine::VOID, 'island', $ring(3, 3, 4.5, 4))],
        )]);
        self::assertEqualsWithDelta(100.0 - 18.0 + 1.5, $tin->statistics()['planArea'], 1e-6);
    }

    public function testARingThatDoesNothingIsNamed(): void
    {
        [$x, $y, $z] = [[0.0, 10.0, 10.0, 0.0, 5.0], [0.0, 0.0, 10.0, 10.0, 5.0], [1.0, 1.0, 1.0, 1.0, 2.0]];
        $far = [[50.0, 50.0, null], [60.0, 50.0, null], [60.0, 60.0, null]];
        $near = [[1.0, 1.0, null], [9.0, 1.0, null], [9.0, 9.0, null]];
        $builder = new SurfaceBuilder($x, $y, $z, [], [new SurfaceLine(SurfaceLine::VOID, 'far', $far)]);
        self::assertEqualsWithDelta(100.0, $builder->build()->statistics()['planArea'], 1e-9);
        self::assertSame(['far lies wholly outside the surface and changes nothing'], $builder->lineWarnings);
        foreach ([
            '/^far: leaves nothing of the surface: no part of it lies inside far/' => [new SurfaceLine(SurfaceLine::BOUNDARY, 'far', $far)],
            '/^near: leaves nothing .*the voids take away/' => [
                new SurfaceLine(SurfaceLine::BOUNDARY, 'near', $near),
                new SurfaceLine(SurfaceLine::VOID, 'hole', $near),
            ],
            '/^flat: this void encloses nothing/' => [new SurfaceLine(
                SurfaceLine::VOID, 'flat', [[1.0, 1.0, null], [5.0, 5.0, null], [9.0, 9.0, null]],
            )],
        ] as $pattern => $lines) {
            try {
                (new SurfaceBuilder($x, $y, $z, [], $lines))->build();
                self::fail($pattern);
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression($pattern, $e->getMessage());
            }
        }
    }

    /** Of points at one place the one given first stands, whatever order they are worked in, and they are named in that order. */
    public function testTheFirstOfPointsAtOnePlaceStands(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(4));
        for ($round = 0; $round < 40; ++$round) {
            $places = $random->shuffleArray(array_merge(...array_fill(0, 3, range(0, 24))));
            $x = array_map(static fn (int $k): float => (float) ($k % 5), $places);
            $y = array_map(static fn (int $k): float => (float) intdiv($k, 5), $places);
            foreach (Delaunay::triangulate($x, $y)['duplicates'] as $p => $q) {
                self::assertSame(array_search($places[$p], $places, true), $q);
                self::assertGreaterThan($q, $p);
            }
            $z = array_map(static fn (int $p): float => (float) $p, array_keys($places));
            $builder = new SurfaceBuilder($x, $y, $z, array_map(static fn (int $p): string => "P$p", array_keys($places)));
            $builder->build();
            self::assertCount(25, $builder->warnings);
            foreach ($builder->warnings as $warning) {
                self::assertSame(3, preg_match_all('/P(\d+)/', $warning, $found));
                $sorted = array_map(intval(...), $found[1]);
                self::assertSame(min($sorted), $sorted[0], $warning);
            }
        }
    }

    /** A tenth of a millimetre apart is two vertices, less is one, however many decimals the coordinates have. */
    #[DataProvider('offsets')]
    public function testATenthOfAMillimetreKeepsTwoVertices(float $e0, float $n0, float $extra): void
    {
        foreach ([[0.0001, 6], [0.00009, 5], [0.00011, 6]] as [$apart, $vertices]) {
            foreach ([[$apart, 0.0], [0.0, $apart], [-$apart, 0.0]] as [$de, $dn]) {
                $points = [[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0], [5 + $extra, 5, 1], [5 + $extra + $de, 5 + $dn, 1]];
                $tin = $this->build(
                    array_map(static fn (array $p): array => [round($e0 + $p[0], 12), round($n0 + $p[1], 12), $p[2]], $points),
                    [],
                );
                self::assertSame($vertices, $tin->statistics()['points'], json_encode([$apart, $de, $dn], \JSON_THROW_ON_ERROR));
            }
        }
    }

    /** @return iterable<string, array{float, float, float}> */
    public static function offsets(): iterable
    {
        yield 'whole metres' => [0.0, 0.0, 0.0];
        yield 'of a grid' => [493000.0, 6028000.0, 0.0];
        yield 'with a fourth decimal' => [493000.0, 6028000.0, 0.1234];
        yield 'with eight decimals' => [0.0, 0.0, 0.12345678];
        yield 'of computed coordinates' => [493000.0, 6028000.0, 1.0 / 3.0];
    }

    /**
     * Area two convex rings have in common, by clipping one along the sides of the other (Sutherland and Hodgman 1974).
     *
     * @param list<array{float, float}> $a
     * @param list<array{float, float}> $b anticlockwise
     */
    private static function common(array $a, array $b): float
    {
        foreach ($b as $k => $p) {
            $q = $b[($k + 1) % \count($b)];
            $side = static fn (array $v): float => ($q[0] - $p[0]) * ($v[1] - $p[1]) - ($q[1] - $p[1]) * ($v[0] - $p[0]);
            $left = [];
            foreach ($a as $i => $v) {
                $w = $a[($i + 1) % \count($a)];
                if ($side($v) >= 0.0) {
                    $left[] = $v;
                }
                if ($side($v) * $side($w) < 0.0) {
                    $f = $side($v) / ($side($v) - $side($w));
                    $left[] = [$v[0] + $f * ($w[0] - $v[0]), $v[1] + $f * ($w[1] - $v[1])];
                }
            }
            $a = $left;
        }

        return (new SurfaceLine(SurfaceLine::VOID, 'common', array_map(static fn (array $v): array => [$v[0], $v[1], null], $a)))->area();
    }

    public function testABoundaryWithHeightsShapesTheSurface(): void
    {
        $points = [[0, 0, 0], [20, 0, 0], [20, 20, 0], [0, 20, 0]];
        $tin = $this->build(
            $points,
            [new SurfaceLine(SurfaceLine::BOUNDARY, 'b', [[5.0, 5.0, 3.0], [15.0, 5.0, 3.0], [15.0, 15.0, 3.0], [5.0, 15.0, 3.0]])],
        );
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
        $rim = new SurfaceLine(
            SurfaceLine::BREAKLINE,
            'rim',
            [[10.0, 10.0, 5.0], [30.0, 10.0, 5.0], [30.0, 30.0, 5.0], [10.0, 30.0, 5.0], [10.0, 10.0, 5.0]],
        );
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
                if (($x[$v] === $x[$to] && $y[$v] === $y[$to])
                    || 0.0 === Predicate::orient($x[$from], $y[$from], $x[$to], $y[$to], $x[$v], $y[$v])
                    && $ahead > 0.0
                ) {
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

        return (new SurfaceBuilder(
            $column(0), $column(1), $column(2), array_map(static fn (int $i): string => "P$i", array_keys($points)),
            $lines,
        ))->build($maxEdge);
    }
}
