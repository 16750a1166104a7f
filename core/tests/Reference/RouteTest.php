<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\GeocentricStep;
use Mensura\Reference\Operation\Helmert;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use Mensura\Reference\Text\ProjStringReader;
use Mensura\Reference\UnknownSystem;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RouteTest extends TestCase
{
    /** Datum shifts in both conventions, with rates, by NTv2, and EGM96 heights, against PROJ (fixtures/reference/shifts.py). */
    public function testAgreesWithProj(): void
    {
        foreach (Fixture::csv('reference/shifts.csv') as $row) {
            $route = self::route($row['from'], $row['to'], new RouteSettings(epoch: '' === $row['epoch'] ? null : (float) $row['epoch']));
            [$a, $b, $c] = [(float) $row['a'], (float) $row['b'], (float) $row['c']];
            $from = $route->from->horizontal;
            $to = $route->to->horizontal;
            $message = implode(' ', $row);
            [$lat, $lon, $h] = HorizontalSystem::GEOCENTRIC === $from->kind ? $from->ellipsoid()->toGeodetic($a, $b, $c) : [
                deg2rad($a), deg2rad($b + $from->datum->primeMeridian), $c,
            ];
            [$lat, $lon, $h] = $route->apply($lat, $lon, $h);
            if (HorizontalSystem::GEOCENTRIC === $to->kind) {
                [$x, $y, $z] = $to->ellipsoid()->toCartesian($lat, $lon, $h);
                self::assertEqualsWithDelta((float) $row['x'], $x, 1e-5, $message);
                self::assertEqualsWithDelta((float) $row['y'], $y, 1e-5, $message);
                self::assertEqualsWithDelta((float) $row['z'], $z, 1e-5, $message);
                continue;
            }
            // A tenth of a millimetre; where a meridian is stated to fewer digits than its rotation, a third of one.
            $tolerance = 'another meridian' === $row['what'] ? 4e-9 : 1e-9;
            self::assertEqualsWithDelta((float) $row['x'], rad2deg($lat), $tolerance, $message);
            self::assertEqualsWithDelta((float) $row['y'], rad2deg($lon) - $to->datum->primeMeridian, $tolerance, $message);
            if ('' !== $row['c']) {
                self::assertEqualsWithDelta((float) $row['z'], $h, 1e-5, $message);
            }
        }
    }

    /** EPSG Guidance Note 7-2, method 9606: WGS 72 to WGS 84 (values from memory; the printed ones are rounded to a centimetre). */
    public function testHelmertBothConventions(): void
    {
        $s = \M_PI / 648000.0;
        $el = Ellipsoid::wgs84();
        $vector = Helmert::positionVector(0.0, 0.0, 4.5, 0.0, 0.0, 0.554 * $s, 0.219e-6);
        $frame = Helmert::coordinateFrame(0.0, 0.0, 4.5, 0.0, 0.0, -0.554 * $s, 0.219e-6);
        self::assertEquals($vector, $frame);
        [$m, $d] = $vector->forward();
        $x = [3657660.66, 255768.55, 5201382.11];
        foreach ([3657660.78, 255778.43, 5201387.75] as $i => $expected) {
            self::assertEqualsWithDelta($expected, $m[3 * $i] * $x[0] + $m[3 * $i + 1] * $x[1] + $m[3 * $i + 2] * $x[2] + $d[$i], 0.01);
        }
        // The reverse is exact however large the rotations are, where turning the signs is not.
        $large = Helmert::positionVector(500.0, -300.0, 800.0, 40.0 * $s, -60.0 * $s, 90.0 * $s, 30e-6);
        $there = new GeocentricStep($el, $el, $large->forward(), false);
        $back = new GeocentricStep($el, $el, $large->backward(), false);
        [$lat, $lon, $h] = $back->apply(...$there->apply(0.95, -0.05, 120.0));
        self::assertEqualsWithDelta(0.95, $lat, 1e-15);
        self::assertEqualsWithDelta(-0.05, $lon, 1e-15);
        self::assertEqualsWithDelta(120.0, $h, 1e-8);
    }

    /** Every way there and back is the identity. */
    #[DataProvider('roundTrips')]
    public function testThereAndBack(string $from, string $to, float $lat, float $lon, ?float $epoch): void
    {
        $settings = new RouteSettings(epoch: $epoch);
        $there = self::route($from, $to, $settings);
        $back = self::route($to, $from, $settings);
        [$p, $l, $h] = $back->apply(...$there->apply(deg2rad($lat), deg2rad($lon), 55.0));
        self::assertEqualsWithDelta($lat, rad2deg($p), 1e-11);
        self::assertEqualsWithDelta($lon, rad2deg($l), 1e-11);
        self::assertEqualsWithDelta(55.0, $h, 1e-8);
    }

    /** @return iterable<array{string, string, float, float, ?float}> */
    public static function roundTrips(): iterable
    {
        yield ['EPSG:4937', 'EPSG:4979', 54.4, -3.1, null];
        yield ['EPSG:7789', 'EPSG:7842', -33.0, 151.0, 2024.3];
        yield ['EPSG:4314', 'EPSG:4258', 48.2, 11.5, null];
        yield ['EPSG:4149', 'EPSG:4150', 47.0, 8.0, null];
        yield ['EPSG:4979', 'EPSG:4326+EPSG:5773', 20.0, 100.0, null];
        yield ['EPSG:4939', 'EPSG:7843', -33.9, 151.2, null];
    }

    public function testAMissingGridIsNamedAndNeverReplacedSilently(): void
    {
        $route = self::route('EPSG:4277', 'EPSG:4326');
        try {
            $route->apply(deg2rad(52.0), deg2rad(-1.0), 0.0);
            self::fail('no error');
        } catch (MissingGrid $e) {
            self::assertStringContainsString('OSTN15_NTv2_OSGBtoETRS.gsb', $e->getMessage());
            self::assertStringContainsString('the best way without it is', $e->getMessage());
        }
        $allowed = self::route('EPSG:4277', 'EPSG:4326', new RouteSettings(fallBack: true));
        [$lat] = $allowed->apply(deg2rad(52.0), deg2rad(-1.0), 0.0);
        self::assertEqualsWithDelta(52.00044, rad2deg($lat), 1e-5);
        $this->expectException(MissingGrid::class);
        self::route('EPSG:4277', 'EPSG:4326', new RouteSettings(area: new Area(51.0, -2.0, 53.0, 0.0)));
    }

    public function testPlacesNoDirectWayReachesGoThroughAnotherDatum(): void
    {
        $route = self::route('EPSG:4230', 'EPSG:4258');
        $operation = $route->describe(deg2rad(48.0), deg2rad(11.0));
        self::assertStringContainsString('ED50 to WGS 84', $operation['operation']);
        self::assertGreaterThan(1.0, $operation['accuracy']);
        self::assertCount(2, $operation['steps']);
    }

    public function testOutsideEveryAreaIsAnError(): void
    {
        $this->expectException(NoWay::class);
        $this->expectExceptionMessageMatches('/outside the area of use/');
        self::route('EPSG:4313', 'EPSG:4258')->apply(deg2rad(-40.0), deg2rad(140.0), 0.0);
    }

    public function testDefinitionsThatNameNoDatum(): void
    {
        $reader = new ProjStringReader(Systems::registry());
        $etrs = Systems::registry()->system('EPSG:4258');
        $route = self::finder()->route($etrs, $reader->read('+proj=tmerc +lon_0=-3 +k=0.9996 +x_0=500000 +ellps=GRS80'));
        self::assertTrue($route->isIdentity());
        self::assertMatchesRegularExpression('/names no datum/', $route->warnings[0]);
        $this->expectException(NoWay::class);
        $this->expectExceptionMessageMatches('/names no datum, only the ellipsoid airy/');
        self::finder()->route($etrs, $reader->read('+proj=tmerc +lon_0=-3 +k=0.9996 +x_0=500000 +ellps=airy'));
    }

    public function testAGeoidNeedsAHeightSystem(): void
    {
        $geoid = GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
        $this->expectException(NoWay::class);
        self::route('EPSG:4979', 'EPSG:4978', new RouteSettings(geoid: $geoid));
    }

    public function testTheChosenWayIsDescribed(): void
    {
        $d = self::route('EPSG:31467', 'EPSG:25832', new RouteSettings(area: new Area(48.0, 11.0, 48.5, 12.0)))->describe();
        self::assertSame('DHDN to ETRS89 (8)', $d['operation']);
        self::assertSame(0.9, $d['accuracy']);
        self::assertSame(
            ['Inverse of Transverse Mercator', 'NTv2', 'Transverse Mercator'],
            array_map(static fn ($s): string => $s->method, $d['steps']),
        );
        self::assertSame('EPSG:15948', $d['steps'][1]->source);
    }

    #[DataProvider('badCodes')]
    public function testCodesThatCannotBeUsed(string $code, string $pattern): void
    {
        $this->expectException(UnknownSystem::class);
        $this->expectExceptionMessageMatches($pattern);
        Systems::registry()->system($code);
    }

    /** @return iterable<string, array{string, string}> */
    public static function badCodes(): iterable
    {
        yield 'unknown' => ['EPSG:99999', '/not in the registry/'];
        yield 'height alone' => ['EPSG:5773', '/is a height system; name it after/'];
        yield 'height first' => ['EPSG:5773+EPSG:4326', '/the horizontal system comes first/'];
        yield 'horizontal in the place of a height' => ['EPSG:25830+EPSG:4326', '/is not a height system/'];
        yield 'no code at all' => ['UTM 30', '/is not a code/'];
    }

    public function testADeprecatedSystemNamesItsSuccessor(): void
    {
        $system = Systems::horizontal('EPSG:2192');
        self::assertTrue($system->deprecated);
        self::assertNotNull($system->successor);
    }

    private static function route(string $from, string $to, RouteSettings $settings = new RouteSettings()): Route
    {
        return self::finder()->route(self::system($from), self::system($to), $settings);
    }

    private static function finder(): RouteFinder
    {
        return new RouteFinder(Systems::registry(), GridFiles::installed());
    }

    private static function system(string $code): CoordinateSystem
    {
        return Systems::registry()->system($code);
    }
}
