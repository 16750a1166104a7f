<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\Route;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Systems of a place and a height: how heights go from one meaning to another. Values by cs2cs of PROJ 9.1.1. */
final class CompoundTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, float, float, float, float}> from, to, latitude, longitude,
     * height before and after
     */
    public static function heights(): iterable
    {
        yield 'above EGM96 to ellipsoidal' => ['EPSG:25830+EPSG:5773', 'EPSG:4937', 54.400168046, -3.098393838, 100.0, 152.92014];
        yield 'on one datum, inland' => ['EPSG:4258+EPSG:5773', 'EPSG:4937', 52.5, 13.4, 34.7, 74.277190399];
        yield 'ellipsoidal to above EGM96' => ['EPSG:4937', 'EPSG:4258+EPSG:5773', 48.7, 9.0, 300.0, 251.305438995];
        yield 'an offset between two height systems' => ['EPSG:4167+EPSG:4440', 'EPSG:4167+EPSG:5759', -36.85, 174.76, 10.0, 10.34];
        yield 'the same backwards' => ['EPSG:4167+EPSG:5759', 'EPSG:4167+EPSG:4440', -36.85, 174.76, 10.0, 9.66];
    }

    #[DataProvider('heights')]
    public function testHeightsFollow(string $from, string $to, float $lat, float $lon, float $before, float $after): void
    {
        $route = self::route($from, $to);
        self::assertTrue($route->heights);
        [$a, $b, $h] = $route->apply(deg2rad($lat), deg2rad($lon), $before);
        self::assertEqualsWithDelta($after, $h, 1e-3);
        self::assertEqualsWithDelta($lat, rad2deg($a), 1e-8);
        self::assertEqualsWithDelta($lon, rad2deg($b), 1e-8);
    }

    public function testThereAndBackCloses(): void
    {
        $north = [[54.4, -3.1, 12.0], [50.0, -5.5, -3.5]];
        $south = [[-36.85, 174.76, 12.0], [-36.9, 174.8, -3.5]];
        foreach ([
            ['EPSG:25830+EPSG:5773', 'EPSG:4937', $north], ['EPSG:4326+EPSG:5773', 'EPSG:4978', $south],
            ['EPSG:4167+EPSG:4440', 'EPSG:4167+EPSG:5759', $south],
        ] as [$from, $to, $places]) {
            $there = self::route($from, $to);
            $back = self::route($to, $from);
            foreach ($places as [$lat, $lon, $h]) {
                [$a, $b, $c] = $there->apply(deg2rad($lat), deg2rad($lon), $h);
                [$a, $b, $c] = $back->apply($a, $b, $c);
                self::assertEqualsWithDelta($lat, rad2deg($a), 1e-9, "$from $to");
                self::assertEqualsWithDelta($lon, rad2deg($b), 1e-9, "$from $to");
                self::assertEqualsWithDelta($h, $c, 1e-6, "$from $to");
            }
        }
    }

    public function testAHeightWithoutAHeightAxisPassesAndIsSaid(): void
    {
        $route = self::route('EPSG:25830+EPSG:5773', 'EPSG:25829');
        self::assertFalse($route->heights);
        self::assertSame(77.0, $route->apply(deg2rad(54.4), deg2rad(-3.1), 77.0)[2]);
    }

    public function testAGeoidThatIsNotInstalledIsNamed(): void
    {
        $this->expectException(MissingGrid::class);
        $this->expectExceptionMessageMatches('/needs? the geoid grid .*OSGM15.*not installed/');
        self::route('EPSG:27700+EPSG:5701', 'EPSG:4937')->apply(deg2rad(52.0), deg2rad(-1.5), 50.0);
    }

    public function testHeightSystemsWithoutAWayBetweenThemAreSaid(): void
    {
        $this->expectException(\DomainException::class);
        self::route('EPSG:4167+EPSG:4440', 'EPSG:4258+EPSG:5783')->apply(deg2rad(-40.0), deg2rad(175.0), 0.0);
    }

    /** A file named by the user is read in the system's own datum; the registry does not know it. */
    public function testAGeoidOfOnesOwnTakesThePlaceOfTheRegistrys(): void
    {
        $geoid = GridFiles::installed()->geoid('/usr/share/proj/egm96_15.gtx');
        $route = self::route('EPSG:25832+EPSG:5783', 'EPSG:4937', new RouteSettings($geoid));
        [$lat, $lon, $h] = $route->apply(deg2rad(50.0), deg2rad(9.0), 100.0);
        self::assertEqualsWithDelta(100.0 + $geoid->height(rad2deg($lat), rad2deg($lon)), $h, 1e-6);
        self::assertEqualsWithDelta(9.0, rad2deg($lon), 1e-9);
    }

    public function testStepsAreDescribedInOrder(): void
    {
        $d = self::route('EPSG:25830+EPSG:5773', 'EPSG:4937')->describe(deg2rad(54.4), deg2rad(-3.1));
        self::assertSame('Inverse of Transverse Mercator', $d['steps'][0]->method);
        self::assertStringContainsString('egm96_15.gtx', (string) json_encode($d['steps']));
        self::assertNotSame('', $d['operation']);
    }

    public function testAWayIsChosenByName(): void
    {
        $finder = self::finder();
        $osgb = Systems::registry()->system('EPSG:27700');
        $etrs = Systems::registry()->system('EPSG:4258');
        $ways = $finder->ways($osgb->horizontal, $etrs->horizontal, false);
        $usable = array_values(array_filter($ways, static fn ($c): bool => $c->isUsable()));
        self::assertNotSame([], $usable);
        self::assertSame(
            array_unique(array_map(static fn ($c): string => $c->name, $ways)),
            array_map(static fn ($c): string => $c->name, $ways), 'Each is listed once.',
        );
        $route = $finder->route($osgb, $etrs, new RouteSettings(prefer: $usable[0]->name));
        [$lat, $lon] = $route->apply(deg2rad(52.0), deg2rad(-1.5), 0.0);
        self::assertEqualsWithDelta(52.0, rad2deg($lat), 2e-3);
        self::assertNotSame(deg2rad(-1.5), $lon);
        try {
            $finder->route($osgb, $etrs, new RouteSettings(prefer: $ways[0]->name));
            self::fail('The best needs its grid.');
        } catch (MissingGrid $e) {
            self::assertStringContainsString('OSTN15', $e->getMessage());
        }
        $this->expectException(NoWay::class);
        $this->expectExceptionMessageMatches('/there is no transformation "by guess"/');
        $finder->route($osgb, $etrs, new RouteSettings(prefer: 'by guess'));
    }

    private static function finder(): RouteFinder
    {
        return new RouteFinder(Systems::registry(), GridFiles::installed());
    }

    private static function route(string $from, string $to, RouteSettings $settings = new RouteSettings()): Route
    {
        return self::finder()->route(Systems::registry()->system($from), Systems::registry()->system($to), $settings);
    }
}
