<?php

declare(strict_types=1);

namespace Mensura\Tests\Surface;

use Mensura\Exchange\GeoJson\SurfaceLines;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;
use Mensura\Surface\Delaunay;
use Mensura\Surface\Predicate;
use Mensura\Surface\RimSurface;
use Mensura\Surface\SurfaceBuilder;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

/** Against scipy's Delaunay, solids by formula, and R's volcano grid. */
final class SurfaceTest extends TestCase
{
    public function testTrianglesAgreeWithScipy(): void
    {
        $fixture = Fixture::json('surface/scattered.json');
        $x = array_column($fixture['points'], 0);
        $y = array_column($fixture['points'], 1);
        $triangles = array_chunk(Delaunay::triangulate(...SurfaceBuilder::scaled($x, $y))['triangles'], 3);
        $triangles = array_map(static function (array $t): array {
            sort($t);

            return $t;
        }, $triangles);
        sort($triangles);
        self::assertSame($fixture['triangles'], $triangles);
    }

    public function testCocircularGridWithDuplicatesAndCollinearRunsStaysDelaunay(): void
    {
        $x = $y = [];
        for ($i = 0; $i < 30; ++$i) {
            for ($j = 0; $j < 30; ++$j) {
                $x[] = 493000.0 + 0.1 * $i;
                $y[] = 6028000.0 + 0.1 * $j;
            }
        }
        array_push($x, 493000.0, 493001.5);
        array_push($y, 6028000.0, 6028001.5);
        [$sx, $sy] = SurfaceBuilder::scaled($x, $y);
        $result = Delaunay::triangulate($sx, $sy);
        self::assertCount(2, $result['duplicates']);
        self::assertCount(3 * 2 * 29 * 29, $result['triangles']);
        foreach ($result['opposite'] as $h => $o) {
            if ($o < 0) {
                continue;
            }
            self::assertSame($h, $result['opposite'][$o]);
            $t = $h - $h % 3;
            [$a, $b, $c] = \array_slice($result['triangles'], $t, 3);
            $q = $result['triangles'][$o - $o % 3 + ($o + 2) % 3];
            self::assertLessThanOrEqual(0.0, Predicate::inCircle($sx[$a], $sy[$a], $sx[$b], $sy[$b], $sx[$c], $sy[$c], $sx[$q], $sy[$q]));
        }
    }

    /** Exact signs where doubles round to zero: Kettner et al. 2008, Classroom examples of robustness problems, figure 2. */
    public function testOrientationIsExact(): void
    {
        $u = 2.0 ** -53;
        self::assertSame(0.0, Predicate::orient(0.5, 0.5, 12.0, 12.0, 24.0, 24.0));
        self::assertGreaterThan(
            0.0,
            Predicate::orient(0.5, 0.5 + $u, 12.0, 12.0, 24.0, 24.0) * Predicate::orient(0.5, 0.5 + 4 * $u, 12.0, 12.0, 24.0, 24.0),
        );
        self::assertSame(0.0, Predicate::inCircleExact(0.0, 0.0, 0.1, 0.0, 0.1, 0.1, 0.0, 0.1));
        self::assertLessThan(0.0, Predicate::inCircleExact(0.0, 0.0, 1.0, 0.0, 1.0, 1.0, 0.0, 1.0 + 2.0 ** -52));
        self::assertGreaterThan(0.0, Predicate::inCircleExact(0.0, 0.0, 1.0, 0.0, 1.0, 1.0, 0.0, 1.0 - 2.0 ** -53));
    }

    public function testAllOnOneLineIsRefused(): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('all points lie on one line');
        Delaunay::triangulate([0.0, 1.0, 2.0, 3.0], [0.0, 1.0, 2.0, 3.0]);
    }

    /** Frustum of a square pyramid: V = h / 3 (A1 + A2 + sqrt(A1 A2)). */
    public function testFrustumVolume(): void
    {
        $tin = $this->surface([
            [0, 0, 100], [40, 0, 100], [40, 40, 100], [0, 40, 100], [10, 10, 106], [30, 10, 106], [30, 30, 106],
            [10, 30, 106],
        ], [
            new SurfaceLine(
                SurfaceLine::BREAKLINE,
                'top',
                [[10.0, 10.0, 106.0], [30.0, 10.0, 106.0], [30.0, 30.0, 106.0], [10.0, 30.0, 106.0], [10.0, 10.0, 106.0]],
            ),
        ]);
        $volume = Volume::againstElevation($tin, 100.0);
        self::assertEqualsWithDelta(6.0 / 3.0 * (1600.0 + 400.0 + sqrt(1600.0 * 400.0)), $volume['cut'], 1e-9);
        self::assertSame(0.0, $volume['fill']);
        // At half height: the part above, and the ring below. The corner at 3 m has sides of 30 m.
        $half = Volume::againstElevation($tin, 103.0);
        self::assertEqualsWithDelta(3.0 / 3.0 * (900.0 + 400.0 + 600.0), $half['cut'], 1e-9);
        self::assertEqualsWithDelta(900.0, $half['areaCut'], 1e-9);
        self::assertEqualsWithDelta(1600.0, $half['planArea'], 1e-9);
        $rim = Volume::againstSurface($tin, RimSurface::of($tin));
        self::assertEqualsWithDelta($volume['cut'], $rim['cut'], 1e-8);
    }

    /** Two crossing planes z = 0.1 (x - 50) and 0 over 100 x 100: cut = fill = 0.1 * 50^2 / 2 * 100. */
    public function testCrossingPlanesOnDifferentTriangulations(): void
    {
        $plane = [];
        $flat = [];
        mt_srand(4);
        foreach ([[0, 0], [100, 0], [100, 100], [0, 100]] as [$x, $y]) {
            $plane[] = [$x, $y, 0.1 * ($x - 50)];
            $flat[] = [$x, $y, 0.0];
        }
        for ($i = 0; $i < 200; ++$i) {
            [$x, $y] = [mt_rand(1, 99999) / 1000, mt_rand(1, 99999) / 1000];
            $plane[] = [$x, $y, 0.1 * ($x - 50)];
            [$x, $y] = [mt_rand(1, 99999) / 1000, mt_rand(1, 99999) / 1000];
            $flat[] = [$x, $y, 0.0];
        }
        $volume = Volume::againstSurface($this->surface($plane), $this->surface($flat));
        self::assertEqualsWithDelta(12500.0, $volume['cut'], 1e-6);
        self::assertEqualsWithDelta(12500.0, $volume['fill'], 1e-6);
        self::assertEqualsWithDelta(10000.0, $volume['planArea'], 1e-6);
        self::assertEqualsWithDelta(0.0, $volume['net'], 1e-6);
    }

    public function testNoCommonAreaIsRefused(): void
    {
        $this->expectExceptionMessage('no common area');
        Volume::againstSurface($this->surface([[0, 0, 0], [1, 0, 0], [0, 1, 0]]), $this->surface([[10, 10, 0], [11, 10, 0], [10, 11, 0]]));
    }

    /** R's datasets::volcano: on a 10 m grid any diagonal gives a volume between the sums over both diagonals. */
    public function testVolcano(): void
    {
        $rows = Fixture::csv('surface/volcano.csv');
        $height = [];
        $points = [];
        foreach ($rows as $row) {
            $points[] = [(float) $row['e'], (float) $row['n'], (float) $row['h']];
            $height[(int) $row['e'] / 10][(int) $row['n'] / 10] = (float) $row['h'];
        }
        $low = $high = 0.0;
        for ($i = 0; $i < 86; ++$i) {
            for ($j = 0; $j < 60; ++$j) {
                $a = $height[$i][$j] + $height[$i + 1][$j + 1];
                $b = $height[$i + 1][$j] + $height[$i][$j + 1];
                // Half a cell carries the mean of three corners: both corners of the diagonal twice.
                $low += 100.0 / 6.0 * min(2 * $a + $b, $a + 2 * $b);
                $high += 100.0 / 6.0 * max(2 * $a + $b, $a + 2 * $b);
            }
        }
        $tin = $this->surface($points);
        $statistics = $tin->statistics();
        self::assertSame(['points' => 5307, 'triangles' => 2 * 86 * 60], \array_slice($statistics, 0, 2));
        self::assertSame(94.0, $statistics['hMin']);
        self::assertSame(195.0, $statistics['hMax']);
        self::assertEqualsWithDelta(516000.0, $statistics['planArea'], 1e-6);
        $volume = Volume::againstElevation($tin, 0.0);
        self::assertGreaterThanOrEqual($low, $volume['cut']);
        self::assertLessThanOrEqual($high, $volume['cut']);
    }

    /** A cone's contour is a circle: regular 360-gon of perimeter 2 n r sin(pi / n). */
    public function testContoursOfACone(): void
    {
        $points = [[0.0, 0.0, 50.0]];
        $n = 360;
        for ($i = 0; $i < $n; ++$i) {
            $points[] = [100.0 * cos(2 * \M_PI * $i / $n), 100.0 * sin(2 * \M_PI * $i / $n), 0.0];
        }
        $levels = Contours::of($this->surface($points), 10.0);
        self::assertSame(
            [10.0, 20.0, 30.0, 40.0],
            array_values(array_filter(array_column($levels, 'h'), static fn (float $h): bool => $h > 0 && $h < 50)),
        );
        foreach ($levels as $level) {
            if ($level['h'] > 0.0 && $level['h'] < 50.0) {
                $r = 100.0 - 2.0 * $level['h'];
                self::assertEqualsWithDelta(2 * $n * $r * sin(\M_PI / $n), $level['length'], 1e-6);
                self::assertCount(1, $level['lines']);
                self::assertSame(\array_slice($level['lines'][0], 0, 2), \array_slice($level['lines'][0], -2));
            }
        }
    }

    /** A wall: without its breakline triangles climb it, with it the ridge stands (volume by formula). */
    public function testBreaklineHoldsARidge(): void
    {
        $points = [[0, 0, 0], [100, 0, 0], [0, 50, 10], [100, 50, 10], [0, 100, 0], [100, 100, 0], [50, 20, 4], [50, 80, 4]];
        $line = new SurfaceLine(SurfaceLine::BREAKLINE, 'ridge', [[0.0, 50.0, 10.0], [100.0, 50.0, 10.0]]);
        $tin = $this->surface($points, [$line]);
        self::assertEqualsWithDelta(0.5 * 100 * 10 * 100, Volume::againstElevation($tin, 0.0)['cut'], 1e-9);
        self::assertLessThan(45000.0, Volume::againstElevation($this->surface($points), 0.0)['cut']);
    }

    public function testBoundaryAndVoidCutExactlyAndLeaveTheSurfaceAsItIs(): void
    {
        mt_srand(8);
        $points = [];
        for ($i = 0; $i < 300; ++$i) {
            $points[] = [mt_rand(0, 100000) / 1000, mt_rand(0, 100000) / 1000, mt_rand(0, 5000) / 1000];
        }
        $full = $this->surface($points);
        $ring = new SurfaceLine(
            SurfaceLine::BOUNDARY,
            'b',
            [[20.0, 20.0, null], [80.0, 25.0, null], [70.0, 80.0, null], [30.0, 70.0, null]],
        );
        $void = new SurfaceLine(SurfaceLine::VOID, 'v', [[45.0, 45.0, null], [55.0, 45.0, null], [55.0, 55.0, null], [45.0, 55.0, null]]);
        $cut = $this->surface($points, [$ring, $void]);
        $area = 0.5 * abs((80 - 30) * (80 - 20) - (70 - 20) * (70 - 25) - 0.0);
        $shoelace = 0.0;
        foreach ($ring->segments() as [$a, $b]) {
            $shoelace += 0.5 * ($ring->vertices[$a][0] * $ring->vertices[$b][1] - $ring->vertices[$b][0] * $ring->vertices[$a][1]);
        }
        self::assertGreaterThan(0.0, $area);
        self::assertEqualsWithDelta($shoelace - 100.0, $cut->statistics()['planArea'], 1e-4);
        $difference = Volume::againstSurface($cut, $full);
        self::assertEqualsWithDelta($shoelace - 100.0, $difference['planArea'], 1e-4);
        self::assertEqualsWithDelta(0.0, $difference['cut'], 1e-4);
        self::assertEqualsWithDelta(0.0, $difference['fill'], 1e-4);
    }

    public function testLineFaultsAreNamed(): void
    {
        $square = [[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0], [5, 5, 1]];
        $cases = [
            [
                '/crosses itself at 5\.000, 5\.000/',
                new SurfaceLine(SurfaceLine::BOUNDARY, 'bow', [[1.0, 1.0, null], [9.0, 9.0, null], [9.0, 1.0, null], [1.0, 9.0, null]]),
            ],
            [
                '/vertex 1 \(50\.000, 5\.000\) has no height and lies outside/',
                new SurfaceLine(SurfaceLine::BREAKLINE, 'far', [[50.0, 5.0, null], [5.0, 5.0, null]]),
            ],
            ['/needs at least three vertices/', new SurfaceLine(SurfaceLine::VOID, 'two', [[1.0, 1.0, null], [2.0, 2.0, null]])],
        ];
        foreach ($cases as [$message, $line]) {
            try {
                $this->surface($square, [$line]);
                self::fail('No error for '.$line->name);
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression($message, $e->getMessage());
            }
        }
        $a = new SurfaceLine(SurfaceLine::BREAKLINE, 'a', [[1.0, 5.0, 1.0], [9.0, 5.0, 1.0]]);
        $b = new SurfaceLine(SurfaceLine::BREAKLINE, 'b', [[4.0, 1.0, 2.0], [4.0, 9.0, 2.0]]);
        try {
            $this->surface($square, [$a, $b]);
            self::fail('Crossing breaklines were accepted.');
        } catch (UnusableInput $e) {
            self::assertMatchesRegularExpression('/a: crosses b at 4\.000, 5\.000 with heights 1\.000 and 2\.000/', $e->getMessage());
        }
        $builder = new SurfaceBuilder(...[...$this->columns($square), [$a, $b], true]);
        self::assertContains(1.5, $builder->build()->z);
    }

    public function testPointsAtOnePlaceAreMergedAndNamed(): void
    {
        [$x, $y, $z, $names] = $this->columns([[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0], [5, 5, 1], [5.00005, 5, 1.2]]);
        $builder = new SurfaceBuilder($x, $y, $z, $names);
        $tin = $builder->build();
        self::assertSame(5, $tin->statistics()['points']);
        self::assertSame(['P4, P5 lie at one place with heights 1.000 to 1.200 m; their mean 1.100 is used'], $builder->warnings);
        self::assertEqualsWithDelta(1.1, $tin->statistics()['hMax'], 1e-12);
    }

    public function testLandXmlReadsBackTheSame(): void
    {
        $tin = $this->surface([
            [493000.125, 6028000.5, 1], [493010, 6028000, 2], [493010, 6028010, 3], [493000, 6028010, 4],
            [493004, 6028005, 9.25],
        ]);
        $path = (string) tempnam(sys_get_temp_dir(), 'tin');
        file_put_contents($path, LandXmlSurface::write($tin, 'test', new \DateTimeImmutable('2031-05-04T09:00:00Z')));
        $back = LandXmlSurface::read($path);
        unlink($path);
        self::assertSame($tin->x, $back->x);
        self::assertSame($tin->z, $back->z);
        self::assertEqualsWithDelta($tin->statistics()['surfaceArea'], $back->statistics()['surfaceArea'], 1e-9);
    }

    public function testContoursWriteAsGeoJsonLines(): void
    {
        $levels = Contours::of($this->surface([[0, 0, 0], [10, 0, 0], [5, 10, 10]]), 5.0);
        $document = json_decode(SurfaceLines::contours($levels), true, 32, \JSON_THROW_ON_ERROR);
        self::assertEquals([[7.5, 5.0, 5.0], [2.5, 5.0, 5.0]], $document['features'][0]['geometry']['coordinates']);
    }

    /**
     * @param list<array{float|int, float|int, float|int}> $points
     * @param list<SurfaceLine>                            $lines
     */
    private function surface(array $points, array $lines = []): Tin
    {
        return (new SurfaceBuilder(...[...$this->columns($points), $lines]))->build();
    }

    /**
     * @param list<array{float|int, float|int, float|int}> $points
     *
     * @return array{list<float>, list<float>, list<float>, list<string>}
     */
    private function columns(array $points): array
    {
        $column = static fn (int $k): array => array_map(static fn (array $p): float => (float) $p[$k], $points);

        return [$column(0), $column(1), $column(2), array_map(static fn (int $i): string => "P$i", array_keys($points))];
    }
}
