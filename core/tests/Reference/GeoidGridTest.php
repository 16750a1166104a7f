<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Geodesy\Geodesic;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Grid\UnreadableGrid;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What holds for every geoid grid and every piece cut out of one. */
final class GeoidGridTest extends TestCase
{
    private static function egm(): GeoidGrid
    {
        return GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
    }

    private static function random(int $seed, int $rows, int $columns): GeoidGrid
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $values = '';
        for ($i = 0; $i < $rows * $columns; ++$i) {
            $values .= pack('G', $random->getInt(-100000, 100000) / 1000.0);
        }

        return new GeoidGrid("random$seed.gtx", -10.0 + $seed, 20.0, 0.1, 0.2, $rows, $columns, $values);
    }

    public function testNodesAreGivenAsTheyAre(): void
    {
        $grid = self::random(1, 7, 9);
        for ($r = 0; $r < 7; ++$r) {
            for ($c = 0; $c < 9; ++$c) {
                self::assertEqualsWithDelta(
                    (float) $grid->node($r, $c), $grid->height($grid->south + $r * 0.1, $grid->west + $c * 0.2), 1e-9,
                );
            }
        }
    }

    /** Between nodes never above the highest or below the lowest of the four around; continuous over the edges of cells. */
    public function testInterpolationStaysWithinItsCell(): void
    {
        $grid = self::random(2, 6, 6);
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(3));
        for ($i = 0; $i < 500; ++$i) {
            $y = $random->getInt(0, 49999) / 10000.0;
            $x = $random->getInt(0, 49999) / 10000.0;
            $h = $grid->height($grid->south + 0.1 * $y, $grid->west + 0.2 * $x);
            $corners = [
                $grid->node((int) $y, (int) $x), $grid->node((int) $y + 1, (int) $x),
                $grid->node((int) $y, (int) $x + 1), $grid->node((int) $y + 1, (int) $x + 1),
            ];
            self::assertGreaterThanOrEqual(min($corners) - 1e-9, $h);
            self::assertLessThanOrEqual(max($corners) + 1e-9, $h);
        }
        foreach ([0.1, 0.2, 0.3] as $edge) {
            self::assertEqualsWithDelta(
                $grid->height($grid->south + $edge - 1e-10, $grid->west + 0.33),
                $grid->height($grid->south + $edge + 1e-10, $grid->west + 0.33), 1e-5,
            );
        }
    }

    /** @return iterable<string, array{int, int, int}> */
    public static function sizes(): iterable
    {
        yield 'the smallest' => [4, 2, 2];
        yield 'a strip' => [5, 2, 40];
        yield 'a tower' => [6, 40, 2];
        yield 'a square' => [7, 21, 21];
    }

    #[DataProvider('sizes')]
    public function testFormatsKeepEveryNode(int $seed, int $rows, int $columns): void
    {
        $grid = self::random($seed, $rows, $columns);
        $gtx = Gtx::write($grid);
        self::assertSame(Gtx::size($rows, $columns), \strlen($gtx));
        $isg = Isg::write($grid);
        foreach ([[Gtx::read('a.gtx', $gtx), 1e-9], [Isg::read('a.isg', $isg), 1e-4]] as [$back, $tolerance]) {
            self::assertSame([$rows, $columns], [$back->rows, $back->columns]);
            self::assertEqualsWithDelta([$grid->south, $grid->west], [$back->south, $back->west], 1e-9);
            for ($r = 0; $r < $rows; ++$r) {
                for ($c = 0; $c < $columns; ++$c) {
                    self::assertEqualsWithDelta((float) $grid->node($r, $c), (float) $back->node($r, $c), $tolerance);
                }
            }
        }
    }

    public function testARoundModelHasNoSeam(): void
    {
        $egm = self::egm();
        foreach ([0.0, 54.4, -33.9, 89.0] as $lat) {
            self::assertEqualsWithDelta($egm->height($lat, 180.0), $egm->height($lat, -180.0), 1e-6);
            self::assertEqualsWithDelta($egm->height($lat, 179.9999999), $egm->height($lat, -179.9999999), 1e-4);
            self::assertEqualsWithDelta($egm->height($lat, -3.1), $egm->height($lat, 356.9), 1e-6);
        }
        // EGM96 by NIMA TR8350.2: between -107 m south of India and 85 m at New Guinea.
        self::assertEqualsWithDelta(-106.0, $egm->height(4.7, 78.8), 2.0);
        self::assertEqualsWithDelta(84.0, $egm->height(-8.3, 147.3), 3.0);
    }

    public function testCutTruncatedEndsAreNamed(): void
    {
        $bytes = Gtx::write(self::random(8, 5, 5));
        foreach ([0, 10, 39, 44, \strlen($bytes) - 1] as $length) {
            try {
                Gtx::read('cut.gtx', substr($bytes, 0, $length));
                self::fail("$length bytes were read.");
            } catch (UnreadableGrid $e) {
                self::assertStringContainsString('cut.gtx', $e->getMessage());
            }
        }
        $this->expectException(UnreadableGrid::class);
        Isg::read('cut.isg', substr(Isg::write(self::random(9, 5, 5)), 0, -15));
    }

    /** @return iterable<string, array{float, float, float}> */
    public static function circles(): iterable
    {
        yield 'near' => [54.4, -3.1, 5.0];
        yield 'the largest' => [54.4, -3.1, 100.0];
        yield 'at the equator' => [0.0, 10.0, 60.0];
        yield 'over the date line' => [-17.0, 179.8, 80.0];
        yield 'in the north' => [80.0, 20.0, 50.0];
    }

    /** The area about a centre holds every place within the radius. */
    #[DataProvider('circles')]
    public function testAroundHoldsTheCircle(float $lat, float $lon, float $km): void
    {
        $el = Ellipsoid::wgs84();
        $area = GeoidExtract::around($lat, $lon, $km, $el);
        $geodesic = new Geodesic($el);
        for ($azimuth = 0.0; $azimuth < 360.0; $azimuth += 15.0) {
            $place = $geodesic->direct($lat, $lon, $azimuth, 1000.0 * $km * 0.999);
            self::assertTrue($area->contains($place['lat'], $place['lon']), "azimuth $azimuth");
        }
        $far = $geodesic->direct($lat, $lon, 0.0, 1000.0 * $km * 1.2 + 2000.0);
        self::assertFalse($area->contains($far['lat'], $far['lon']), 'It is not much larger either.');
    }

    public function testAnExtractOverTheDateLineIsWhole(): void
    {
        $egm = self::egm();
        $plan = GeoidExtract::plan($egm, GeoidExtract::around(-17.0, 179.8, 80.0, Ellipsoid::wgs84()), null);
        $extract = $plan->make('fiji.gtx', 'WGS 84');
        foreach ([179.3, 179.9999, 180.0, -179.9, -179.7] as $lon) {
            self::assertEqualsWithDelta($egm->height(-17.1, $lon), $extract->height(-17.1, $lon), 1e-6);
        }
        $check = GeoidExtract::verify($extract, $egm, null);
        self::assertLessThan(1e-5, $check['largest']);
    }

    /** A finer step interpolates between the nodes of the model and so agrees with it everywhere. */
    public function testAFinerStepAddsNothing(): void
    {
        $egm = self::egm();
        $plan = GeoidExtract::plan($egm, new Area(54.0, -4.0, 55.0, -3.0), 1.0 / 20.0);
        self::assertFalse($plan->sameStep);
        $extract = $plan->make('fine.gtx', 'WGS 84');
        self::assertLessThan(1e-4, GeoidExtract::verify($extract, $egm, null, 400)['largest']);
    }

    /** A coarser one loses what lies between its nodes, and the verification says how much. */
    public function testACoarserStepIsMeasured(): void
    {
        $egm = self::egm();
        $plan = GeoidExtract::plan($egm, new Area(45.0, 6.0, 48.0, 12.0), 1.0);
        $check = GeoidExtract::verify($plan->make('coarse.gtx', 'WGS 84'), $egm, null, 400);
        self::assertGreaterThan(0.1, $check['largest'], 'The Alps are not flat between whole degrees.');
        self::assertGreaterThan($check['rms'], $check['largest']);
        self::assertSame(400, $check['count']);
    }

    public function testOutsideIsAnErrorAndSaysWhere(): void
    {
        $extract = GeoidExtract::plan(self::egm(), new Area(54.0, -4.0, 55.0, -3.0), null)->make('tarn.gtx', 'WGS 84');
        $this->expectException(OutsideGrid::class);
        $this->expectExceptionMessageMatches('/latitude 51\.\d+, longitude -3\.5.*outside the grid tarn\.gtx/');
        $extract->height(51.0, -3.5);
    }
}
