<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\GeoidFile;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\Ntv2Grid;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class GridsTest extends TestCase
{
    private const EGM96 = '/usr/share/proj/egm96_15.gtx';

    /** GeoTIFFs GDAL made of a corner of EGM96 (fixtures/reference/geoid.sh) hold what the GTX file holds. */
    #[DataProvider('tiffs')]
    public function testGeoTiffsOfSeveralLayouts(string $file): void
    {
        $tiff = GeoidFile::read($file, (string) file_get_contents(Fixture::path('reference/'.$file)));
        $egm = GridFiles::installed()->geoid(self::EGM96);
        self::assertSame([17, 21], [$tiff->rows, $tiff->columns]);
        foreach ([[53.0, -6.0], [55.1234, -3.4321], [56.99, -1.01], [54.4, -3.1]] as [$lat, $lon]) {
            self::assertEqualsWithDelta($egm->height($lat, $lon), $tiff->height($lat, $lon), 1e-5);
        }
    }

    /** @return iterable<array{string}> */
    public static function tiffs(): iterable
    {
        foreach (['geoid-plain.tif', 'geoid-deflate.tif', 'geoid-lzw-tiled.tif', 'geoid-double-big.tif'] as $file) {
            yield $file => [$file];
        }
    }

    /** Of a plane, bilinear interpolation is exact, in every format, the date line included. */
    public function testInterpolationAndFormatsOfAKnownPlane(): void
    {
        $values = '';
        for ($r = 0; $r < 9; ++$r) {
            $values .= pack('G*', ...array_map(static fn (int $c): float => 10.0 + 0.5 * $r + 0.25 * $c, range(0, 12)));
        }
        $grid = new GeoidGrid('plane', -2.0, 177.0, 0.5, 0.5, 9, 13, $values);
        foreach ([$grid, Gtx::read('plane', Gtx::write($grid)), Isg::read('plane', Isg::write($grid))] as $g) {
            self::assertEqualsWithDelta(10.0 + 1.3 + 2.1, $g->height(-0.7, -178.8), 2e-4, 'over the date line');
            self::assertEqualsWithDelta(10.0, $g->height(-2.0, 177.0), 1e-6);
            self::assertEqualsWithDelta(17.0, $g->height(2.0, -177.0), 1e-6);
        }
    }

    public function testCellRegisteredIsgIsMovedToItsNodes(): void
    {
        $text = "begin_of_head\nmodel name : m\nlat min = 50.0\nlat max = 52.0\nlon min = 1.0\nlon max = 3.0\ndelta lat "
            ."= 1.0\ndelta lon = 1.0\nnrows = 2\nncols = 2\nnodata = -9999\nend_of_head\n3 4\n1 2\n";
        $grid = Isg::read('m', $text);
        self::assertSame([50.5, 1.5], [$grid->south, $grid->west]);
        self::assertSame(1.0, $grid->height(50.5, 1.5));
        self::assertSame(4.0, $grid->height(51.5, 2.5));
    }

    public function testOutsideAndEmptyPlacesAreErrors(): void
    {
        $grid = new GeoidGrid('g', 0.0, 0.0, 1.0, 1.0, 3, 3, pack('G*', 1, 1, 1, 1, GeoidGrid::EMPTY, 1, 1, 1, 1));
        foreach ([[-0.1, 1.0, '/outside the grid g/'], [1.0, 2.1, '/outside/'], [0.5, 0.5, '/is empty at/']] as [$lat, $lon, $pattern]) {
            try {
                $grid->height($lat, $lon);
                self::fail('no error');
            } catch (OutsideGrid $e) {
                self::assertMatchesRegularExpression($pattern, $e->getMessage());
            }
        }
    }

    #[DataProvider('broken')]
    public function testBrokenFilesAreNamed(string $bytes, string $pattern): void
    {
        $this->expectException(UnreadableGrid::class);
        $this->expectExceptionMessageMatches($pattern);
        GeoidFile::read('broken', $bytes);
    }

    /** @return iterable<string, array{string, string}> */
    public static function broken(): iterable
    {
        $tiff = (string) file_get_contents(Fixture::path('reference/geoid-plain.tif'));
        yield 'empty' => ['', '/too short/'];
        yield 'text' => [str_repeat('hello ', 30), '/not a geoid grid known here/'];
        yield 'gtx cut short' => [pack('E4N2', 0, 0, 1, 1, 10, 10).'abc', '/cut short: 43 bytes/'];
        yield 'tiff cut in its data' => [substr($tiff, 0, 600), '/cut short|damaged/'];
        yield 'tiff cut in its head' => [substr($tiff, 0, 20), '/cut short/'];
        yield 'tiff of tiles without width' => [self::tiff([322 => 0, 323 => 16, 324 => 8, 325 => 16], ''), '/a tile of 0 by 16 samples/'];
        yield 'tiff of tiles without height' => [self::tiff([322 => 16, 323 => 0, 324 => 8, 325 => 16], ''), '/a tile of 16 by 0 samples/'];
        yield 'tiff of strips without rows' => [self::tiff([278 => 0, 273 => 8, 279 => 16], ''), '/a strip of 2 by 0 samples/'];
        yield 'tiff with a vast tile' => [self::tiff([322 => 65536, 323 => 65536, 324 => 8, 325 => 16], ''), '/a tile of 65536 by 65536/'];
        yield 'tiff of too many nodes' => [
            self::tiff([256 => 20000, 257 => 10000, 278 => 10000, 273 => 8, 279 => 16], ''),
            '/at most 40 million nodes/',
        ];
        yield 'isg without end' => ["begin_of_head\nlat min = 1\n", '/end_of_head/'];
        yield 'isg with too few values' => [
            "begin_of_head\nlat min = 0\nlat max = 1\nlon min = 0\nlon max = 1\ndelta lat = 1\ndelta lon = 1\nnrows = "
                ."2\nncols = 2\nend_of_head\n1 2 3\n",
            '/holds 3 values where/',
        ];
        yield 'isg with a word' => [
            "begin_of_head\nlat min = 0\nlat max = 1\nlon min = 0\nlon max = 1\ndelta lat = 1\ndelta lon = 1\nnrows = "
                ."2\nncols = 2\nend_of_head\n1 2 3 x\n",
            '/"x", is not a number/',
        ];
        yield 'isg whose rows do not fit' => [
            "begin_of_head\nlat min = 0\nlat max = 9\nlon min = 0\nlon max = 1\ndelta lat = 1\ndelta lon = 1\nnrows = "
                ."2\nncols = 2\nend_of_head\n1 2 3 4\n",
            '/do not reach/',
        ];
    }

    /** Some hundred kilobytes that inflate to hundreds of millions are refused before they take the memory. */
    public function testWhatIsInflatedIsLimited(): void
    {
        $bomb = (string) gzcompress(str_repeat("\0", 100_000_000), 9);
        $lzw = "\x80\x00".str_repeat("\x01\x02\x03\x04", 1000);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        foreach ([[8, $bomb], [8, self::tiff([], $bomb)], [5, $lzw]] as [$compression, $data]) {
            $bytes = self::tiff([259 => $compression, 278 => 2, 273 => 8, 279 => \strlen($data)], $data);
            try {
                GeoidFile::read('bomb', $bytes);
                self::fail('read');
            } catch (UnreadableGrid $e) {
                self::assertMatchesRegularExpression('/larger than its layout says in block 1/', $e->getMessage());
            }
        }
        self::assertLessThan(8_000_000, memory_get_peak_usage() - $before);
    }

    /**
     * A little-endian TIFF of two by two floats, its data from byte 8 (TIFF 6.0, section 2).
     *
     * @param array<int, int> $tags
     */
    private static function tiff(array $tags, string $data): string
    {
        $tags += [256 => 2, 257 => 2, 258 => 32, 277 => 1, 339 => 3];
        $at = 8 + \strlen($data);
        $scale = pack('e3', 1.0, 1.0, 0.0);
        $tie = pack('e6', 0.0, 0.0, 0.0, 1.0, 50.0, 0.0);
        $entries = [33550 => [12, 3, $at], 33922 => [12, 6, $at + 24]];
        foreach ($tags as $tag => $value) {
            $entries[$tag] = [4, 1, $value];
        }
        ksort($entries);
        $directory = pack('v', \count($entries));
        foreach ($entries as $tag => [$type, $count, $value]) {
            $directory .= pack('vvVV', $tag, $type, $count, $value);
        }

        return 'II*'."\0".pack('V', $at + 72).$data.$scale.$tie.$directory.pack('V', 0);
    }

    public function testNtv2NamesWhatIsWrong(): void
    {
        $bytes = (string) file_get_contents('/usr/share/proj/BETA2007.gsb');
        foreach ([
            ['x', '/does not begin with NUM_OREC/'], [substr($bytes, 0, 4000), '/cut short/'],
            [substr_replace($bytes, 'MINUTES ', 56, 8), '/only in SECONDS/'],
        ] as [$text, $pattern]) {
            try {
                new Ntv2Grid('b.gsb', $text);
                self::fail('no error');
            } catch (UnreadableGrid $e) {
                self::assertMatchesRegularExpression($pattern, $e->getMessage());
            }
        }
        $grid = new Ntv2Grid('BETA2007.gsb', $bytes);
        [$dLat, $dLon] = $grid->shift(50.0, 9.0);
        [$bLat, $bLon] = $grid->shiftBack(50.0 + $dLat, 9.0 + $dLon);
        self::assertEqualsWithDelta(-$dLat, $bLat, 1e-12);
        self::assertEqualsWithDelta(-$dLon, $bLon, 1e-12);
        $this->expectException(OutsideGrid::class);
        $grid->shift(10.0, 9.0);
    }

    /** An extract at the source's step is the source; one at a wider step is near it, and says how near. */
    public function testExtractAgainstItsSource(): void
    {
        $egm = GridFiles::installed()->geoid(self::EGM96);
        $area = new Area(54.3, -3.3, 54.5, -2.9);
        $plan = GeoidExtract::plan($egm, $area, null);
        $extract = $plan->make('tarn', 'WGS 84');
        self::assertTrue($plan->sameStep);
        self::assertTrue($extract->area()->covers($area));
        self::assertLessThan(1e-5, GeoidExtract::verify($extract, $egm, null)['largest']);
        self::assertSame(Gtx::size($plan->rows, $plan->columns), \strlen(Gtx::write($extract)));

        $wide = GeoidExtract::plan($egm, new Area(50.0, -6.0, 56.0, 2.0), 0.5)->make('wide', 'WGS 84');
        $check = GeoidExtract::verify($wide, $egm, null);
        self::assertGreaterThan(1e-4, $check['largest']);
        self::assertLessThan(0.5, $check['largest']);
        $fine = GeoidExtract::plan($egm, $area, 1.0 / 60.0)->make('fine', 'WGS 84');
        self::assertLessThan(1e-5, GeoidExtract::verify($fine, $egm, null)['largest']);
    }

    /**
     * On a local datum N is N less what the shift does to the height: OSGB36 in Cumbria lies some 54 m below WGS 84
     * (PROJ: EPSG:4277 to 4979).
     */
    public function testExtractOnALocalEllipsoid(): void
    {
        $registry = Systems::registry();
        $egm = GridFiles::installed()->geoid(self::EGM96);
        $route = (new RouteFinder($registry, GridFiles::installed()))->route(
            $registry->system('EPSG:4937'), $registry->system('EPSG:4979'),
        );
        $plan = GeoidExtract::plan($egm, new Area(54.3, -3.3, 54.5, -2.9), null);
        $same = $plan->make('etrs', 'GRS80', $route);
        self::assertEqualsWithDelta($egm->height(54.4, -3.1), $same->height(54.4, -3.1), 1e-3);
        self::assertLessThan(1e-5, GeoidExtract::verify($same, $egm, $route)['largest']);
    }

    public function testExtractThatCannotBeMade(): void
    {
        $small = GeoidFile::read('corner.tif', (string) file_get_contents(Fixture::path('reference/geoid-plain.tif')));
        foreach ([
            [static fn () => GeoidExtract::plan($small, new Area(40.0, 0.0, 41.0, 1.0), null), '/does not cover the area/'],
            [static fn () => GeoidExtract::plan($small, new Area(54.0, -4.0, 55.0, -3.0), 100.0), '/between 1 second and 5 degrees/'],
            [static fn () => GeoidExtract::around(54.0, -3.0, 101.0, Ellipsoid::wgs84()), '/not between 0 and 100 km/'],
            [static fn () => GeoidExtract::plan(
                GridFiles::installed()->geoid(self::EGM96), new Area(-80.0, -170.0, 80.0, 170.0), 1.0 / 120.0,
            ), '/too many for an extract/'],
        ] as [$make, $pattern]) {
            try {
                $make();
                self::fail($pattern);
            } catch (UnreadableGrid $e) {
                self::assertMatchesRegularExpression($pattern, $e->getMessage());
            }
        }
        $area = GeoidExtract::around(54.4, -3.1, 10.0, Ellipsoid::wgs84());
        self::assertEqualsWithDelta(20.0 / 111.2, $area->north - $area->south, 0.001);
        self::assertTrue($area->contains(54.4, -3.1));
    }
}
