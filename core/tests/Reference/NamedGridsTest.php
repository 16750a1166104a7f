<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\OutsideGrid;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use Mensura\Reference\Operation\UnusedGrid;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\SystemReader;
use PHPUnit\Framework\TestCase;

/** Grids asked for by name are used (contracts of the batch interface), whatever else the registry offers. */
final class NamedGridsTest extends TestCase
{
    private const DHDN = 'EPSG:4314';
    private const ETRS89 = 'EPSG:4258';
    private const GERMANY = [47.0, 5.0, 55.0, 16.0];

    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/grids-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        array_map('unlink', glob($this->folder.'/*') ?: []);
        rmdir($this->folder);
    }

    /** A file of the name an operation asks for takes the place of the installed one, both ways. */
    public function testTheOperationThatNamesTheFileComesFirst(): void
    {
        $path = $this->file('BETA2007.gsb', Ntv2::constant(self::GERMANY, [7.2, -3.6]));
        self::assertSame([48.002, 10.999, 'DHDN to ETRS89 (8)'], $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, [$path]));
        self::assertSame([48.0, 11.0, 'Inverse of DHDN to ETRS89 (8)'], $this->apply(self::ETRS89, self::DHDN, 48.002, 10.999, [$path]));
        self::assertNotSame(48.002, $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, [])[0]);
        // From there on to WGS 84 there is a direct way, less accurate and without a grid; the named file still rules.
        self::assertSame([48.002, 10.999], \array_slice($this->apply(self::DHDN, 'EPSG:4326', 48.0, 11.0, [$path]), 0, 2));
    }

    /** Its area of use does not bind an operation that was asked for; the grid does. */
    public function testOutsideTheGridIsAnError(): void
    {
        $path = $this->file('BETA2007.gsb', Ntv2::constant([40.0, 5.0, 55.0, 16.0], [7.2, -3.6]));
        self::assertSame(41.002, $this->apply(self::DHDN, self::ETRS89, 41.0, 11.0, [$path])[0]);
        $this->expectException(OutsideGrid::class);
        $this->apply(self::DHDN, self::ETRS89, 39.0, 11.0, [$path]);
    }

    public function testAFileNoOperationNamesIsAppliedAsItStands(): void
    {
        $path = $this->file('town.gsb', Ntv2::constant(self::GERMANY, [3.6, 1.8]));
        self::assertSame([48.001, 11.0005, 'Grid town.gsb as it stands'], $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, [$path]));
        // Its heading says which ellipsoid it leads from: the other way it is reversed.
        self::assertSame(
            [48.0, 11.0, 'Inverse of Grid town.gsb as it stands'],
            $this->apply(self::ETRS89, self::DHDN, 48.001, 11.0005, [$path]),
        );
        // With equal ellipsoids at both ends there is nothing to tell, and it stands as it is.
        $same = $this->file('same.gsb', Ntv2::constant(self::GERMANY, [3.6, 1.8], [6378137.0, 6356752.314], [6378137.0, 6356752.314]));
        self::assertSame(48.001, $this->apply(self::ETRS89, 'EPSG:4326', 48.0, 11.0, [$same])[0]);
    }

    public function testASystemWithoutADatumIsReachedByANamedGrid(): void
    {
        $path = $this->file('town.gsb', Ntv2::constant(self::GERMANY, [3.6, 1.8]));
        self::assertSame(48.001, $this->apply('+proj=longlat +ellps=bessel +type=crs', self::ETRS89, 48.0, 11.0, [$path])[0]);
        // A shift stated with the system gives way to the grid that was asked for.
        self::assertSame(
            48.001,
            $this->apply('+proj=longlat +ellps=bessel +towgs84=600,70,420 +type=crs', self::ETRS89, 48.0, 11.0, [$path])[0],
        );
        $this->expectException(NoWay::class);
        $this->apply('+proj=longlat +ellps=bessel +type=crs', self::ETRS89, 48.0, 11.0, []);
    }

    public function testOfSeveralGridsEachServesWhereItReaches(): void
    {
        $paths = [
            $this->file('south.gsb', Ntv2::constant([47.0, 5.0, 50.0, 16.0], [3.6, 0.0])),
            $this->file('north.gsb', Ntv2::constant([51.0, 5.0, 55.0, 16.0], [7.2, 0.0])),
        ];
        self::assertSame(48.001, $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, $paths)[0]);
        self::assertSame(52.002, $this->apply(self::DHDN, self::ETRS89, 52.0, 11.0, $paths)[0]);
        $this->expectExceptionMessageMatches('/outside the area of use of every transformation/');
        $this->apply(self::DHDN, self::ETRS89, 50.5, 11.0, $paths);
    }

    public function testBetweenHeightsTheGridOfShiftsIsUsedOnce(): void
    {
        $path = $this->file('town.gsb', Ntv2::constant(self::GERMANY, [3.6, 1.8]));
        // The geoid belongs to WGS 84, so the way leads over a third datum: the grid leaves the first one, once.
        [$lat] = $this->apply(self::DHDN.'+EPSG:5773', 'EPSG:4937', 48.0, 11.0, [$path]);
        self::assertEqualsWithDelta(48.001, $lat, 2e-5);
    }

    /** By --grid as by --geoid: a geoid of the name the registry knows, else the only height system's. */
    public function testANamedGeoidIsUsed(): void
    {
        $level = static fn (float $n): string => Gtx::write(new GeoidGrid(
            'g', 40.0, 0.0, 1.0, 1.0, 21, 21, str_repeat(pack('G', $n), 441),
        ));
        $egm = $this->file('egm96_15.gtx', $level(12.5));
        $own = $this->file('own.gtx', $level(40.25));
        self::assertSame(112.5, $this->height('EPSG:4326+EPSG:5773', 'EPSG:4979', [$egm]));
        self::assertSame(140.25, $this->height('EPSG:4326+EPSG:5773', 'EPSG:4979', [$own]));
        // Between two height systems the one that has a model of its own keeps it.
        self::assertEqualsWithDelta(
            100.0 + $this->height('EPSG:4326+EPSG:5773', 'EPSG:4979', []) - 100.0 - 40.25,
            $this->height('EPSG:4326+EPSG:5773', 'EPSG:4326+EPSG:3855', [$own]),
            1e-9,
        );
    }

    public function testANamedGridThatCannotBeReadOrUsedIsAnError(): void
    {
        foreach ([
            'garbage' => str_repeat('nothing ', 50),
            'cut' => substr(Ntv2::constant(self::GERMANY, [1.0, 1.0]), 0, 400),
        ] as $name => $bytes) {
            try {
                $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, [$this->file($name.'.gsb', $bytes)]);
                self::fail($name);
            } catch (UnreadableGrid $e) {
                self::assertStringContainsString($name.'.gsb', $e->getMessage());
            }
        }
        try {
            $this->apply(self::DHDN, self::ETRS89, 48.0, 11.0, [$this->folder.'/nowhere.gsb']);
            self::fail('nowhere');
        } catch (UnreadableGrid $e) {
            self::assertStringContainsString('cannot be read', $e->getMessage());
        }
        $this->expectException(UnusedGrid::class);
        $this->expectExceptionMessageMatches('/the grid town.gsb is named, but no step from ETRS89 to ETRS89 can use it/');
        $this->apply(self::ETRS89, 'EPSG:4937', 48.0, 11.0, [$this->file('town.gsb', Ntv2::constant(self::GERMANY, [3.6, 1.8]))]);
    }

    private function file(string $name, string $bytes): string
    {
        file_put_contents($this->folder.'/'.$name, $bytes);

        return $this->folder.'/'.$name;
    }

    private static function system(string $text): CoordinateSystem
    {
        return (new SystemReader(Registry::open()))->read($text);
    }

    /**
     * @param list<string> $grids
     *
     * @return array{float, float, string} degrees to 1e-9, what was done
     */
    private function apply(string $from, string $to, float $lat, float $lon, array $grids): array
    {
        $route = (new RouteFinder(Registry::open(), GridFiles::installed()->with($grids)))->route(
            self::system($from), self::system($to), new RouteSettings(),
        );
        [$a, $b] = $route->apply(deg2rad($lat), deg2rad($lon), 100.0);

        return [round(rad2deg($a), 9), round(rad2deg($b), 9), $route->describe(deg2rad($lat), deg2rad($lon))['operation']];
    }

    /** @param list<string> $grids */
    private function height(string $from, string $to, array $grids): float
    {
        $route = (new RouteFinder(Registry::open(), GridFiles::installed()->with($grids)))->route(
            self::system($from), self::system($to), new RouteSettings(),
        );

        return round($route->apply(deg2rad(48.0), deg2rad(11.0), 100.0)[2], 9);
    }
}
