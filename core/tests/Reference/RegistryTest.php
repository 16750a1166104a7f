<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Registry\SystemSearch;
use Mensura\Reference\UnknownSystem;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The EPSG data set as installed: what is read from it and what is found in it. */
final class RegistryTest extends TestCase
{
    public function testAMissingRegistrySaysWhatToInstall(): void
    {
        $this->expectException(UnknownSystem::class);
        $this->expectExceptionMessageMatches('/proj-data/');
        Registry::open('/no/such/proj.db');
    }

    public function testItSaysItsVersion(): void
    {
        self::assertMatchesRegularExpression('/^v\d+/', Systems::registry()->version());
    }

    /** @return iterable<string, array{int, float, string}> EPSG unit, metres or radians, name */
    public static function units(): iterable
    {
        // Definitions of the units (EPSG data set; NIST SP 811 for the two feet).
        yield 'metre' => [9001, 1.0, 'metre'];
        yield 'international foot' => [9002, 0.3048, 'foot'];
        yield 'US survey foot' => [9003, 1200.0 / 3937.0, 'US survey foot'];
        yield 'Clarke\'s chain' => [9038, 66.0 * 12.0 / 39.370432, "Clarke's chain"];
        yield 'British chain (Sears 1922 truncated)' => [9301, 20.116756, 'British chain (Sears 1922 truncated)'];
        yield 'degree' => [9102, \M_PI / 180.0, 'degree'];
        yield 'gon' => [9105, \M_PI / 200.0, 'grad'];
        yield 'arc-second' => [9104, \M_PI / 648000.0, 'arc-second'];
    }

    #[DataProvider('units')]
    public function testUnits(int $code, float $factor, string $name): void
    {
        [$value, $label] = Systems::registry()->unit($code);
        self::assertEqualsWithDelta($factor, $value, 1e-9 * max(1.0, $factor));
        self::assertSame($name, $label);
    }

    /** Sexagesimal DMS (EPSG 9110) packs minutes and seconds behind the point. */
    public function testPackedAngles(): void
    {
        $registry = Systems::registry();
        self::assertEqualsWithDelta(deg2rad(49.5), $registry->angle(49.30, 9110), 1e-14);
        self::assertEqualsWithDelta(deg2rad(30.0 + 17.0 / 60.0 + 17.3031 / 3600.0), $registry->angle(30.17173031, 9110), 1e-12);
        self::assertEqualsWithDelta(deg2rad(-3.0 - 41.0 / 60.0 - 16.58 / 3600.0), $registry->angle(-3.411658, 9110), 1e-12);
        self::assertEqualsWithDelta(deg2rad(45.0), $registry->angle(50.0, 9105), 1e-14);
    }

    /** @return iterable<string, array{string, string, float, float}> datum code, ellipsoid, a, 1/f: published values of the ellipsoids */
    public static function ellipsoids(): iterable
    {
        yield 'GRS 1980' => ['EPSG:7019', 'GRS 1980', 6378137.0, 298.257222101];
        yield 'WGS 84' => ['EPSG:7030', 'WGS 84', 6378137.0, 298.257223563];
        yield 'Airy 1830' => ['EPSG:7001', 'Airy 1830', 6377563.396, 299.3249646];
        yield 'Bessel 1841' => ['EPSG:7004', 'Bessel 1841', 6377397.155, 299.1528128];
        // Clarke gave the minor axis: 20 855 233 feet of 20 926 348 in his foot of 0.3047972654 m.
        yield 'Clarke 1858' => ['EPSG:7007', 'Clarke 1858', 20926348.0 * 0.3047972654, 20926348.0 / (20926348.0 - 20855233.0)];
        yield 'a sphere' => ['EPSG:7048', 'GRS 1980 Authalic Sphere', 6371007.0, \INF];
    }

    #[DataProvider('ellipsoids')]
    public function testEllipsoids(string $code, string $name, float $a, float $inverseFlattening): void
    {
        $e = Systems::registry()->ellipsoid($code);
        self::assertSame($name, $e->name);
        self::assertEqualsWithDelta($a, $e->a, 1e-3);
        if (is_infinite($inverseFlattening)) {
            self::assertSame(0.0, $e->f);
        } else {
            self::assertEqualsWithDelta($inverseFlattening, $e->inverseFlattening, 1e-6);
        }
    }

    public function testMeridiansOtherThanGreenwich(): void
    {
        // Paris lies 2.5969213 gon east (IGN; EPSG 8903), 2°20'14.025".
        $paris = Systems::horizontal('EPSG:27561');
        self::assertEqualsWithDelta(2.0 + 20.0 / 60.0 + 14.025 / 3600.0, $paris->datum->primeMeridian, 1e-6);
        self::assertSame('Paris', $paris->datum->primeMeridianName);
        [$lat, $lon] = $paris->toGeographic(600000.0, 200000.0);
        self::assertEqualsWithDelta($paris->datum->primeMeridian, rad2deg($lon), 1e-9, 'Longitudes are handed over from Greenwich.');
        self::assertEqualsWithDelta(49.5, rad2deg($lat), 1e-6);
    }

    public function testEnsemblesAreOneDatumWithTheirMembers(): void
    {
        $wgs = Systems::horizontal('EPSG:4326')->datum;
        self::assertGreaterThan(5, \count($wgs->members));
        self::assertTrue($wgs->sameAs(Systems::horizontal('EPSG:32630')->datum));
        self::assertFalse($wgs->sameAs(Systems::horizontal('EPSG:25830')->datum));
        self::assertFalse($wgs->isUnknown());
    }

    public function testAreasOfUse(): void
    {
        $area = Systems::horizontal('EPSG:25830')->area;
        self::assertNotNull($area);
        self::assertTrue($area->contains(54.4, -3.1));
        self::assertFalse($area->contains(54.4, 3.1));
        self::assertSame('Europe between 6°W and 0°W', $area->shortName());
        $fiji = Systems::horizontal('EPSG:3460')->area;
        self::assertNotNull($fiji);
        self::assertGreaterThan($fiji->east, $fiji->west, 'It crosses the 180th meridian.');
        self::assertTrue($fiji->contains(-17.0, 179.0));
        self::assertTrue($fiji->contains(-17.0, -179.5));
        self::assertFalse($fiji->contains(-17.0, 0.0));
    }

    public function testWordsFindNamesCodesAndAreas(): void
    {
        $search = new SystemSearch(Systems::registry());
        $codes = static fn (string $text, ?Area $near = null): array => array_column($search->byWords($text, $near, 60), 'code');
        self::assertSame('EPSG:25830', $codes('utm 30')[0]);
        self::assertSame('EPSG:25830', $codes('EPSG:25830')[0]);
        self::assertSame('EPSG:27700', $codes('british national grid')[0]);
        self::assertContains('EPSG:2193', $codes('new zealand transverse mercator'));
        self::assertSame([], $codes('utm 30 nonsense'));
        self::assertSame(
            [],
            array_diff(['EPSG:25830', 'EPSG:32630'], \array_slice($codes('utm', new Area(54.3, -3.2, 54.5, -3.0)), 0, 12)),
            'Those around the place come first.',
        );
        self::assertSame($codes("'; DROP TABLE usage; --"), []);
        self::assertSame([], $codes('100%'), 'A percent sign is a percent sign.');
    }

    public function testThirtyIsNotFoundInOneHundredAndThirty(): void
    {
        $hits = (new SystemSearch(Systems::registry()))->byWords('zone 3', null, 10);
        foreach (\array_slice($hits, 0, 5) as $hit) {
            self::assertMatchesRegularExpression('/zone 3(?![0-9])/i', $hit['name']);
        }
    }

    public function testWhatCoversAPlaceIsListedSmallestFirst(): void
    {
        $hits = (new SystemSearch(Systems::registry()))->covering(new Area(54.39, -3.11, 54.41, -3.09));
        self::assertContains('EPSG:25830', array_column($hits, 'code'));
        $sizes = array_map(static fn (array $h): float => $h['area']?->size() ?? \INF, $hits);
        $sorted = $sizes;
        sort($sorted);
        self::assertSame($sorted, $sizes);
        self::assertSame([], array_filter($hits, static fn (array $h): bool => $h['deprecated']));
        foreach ($hits as $hit) {
            self::assertTrue($hit['area']?->contains(54.4, -3.1), $hit['code']);
        }
    }

    public function testKindsOfSystems(): void
    {
        self::assertSame(HorizontalSystem::GEOGRAPHIC, Systems::horizontal('EPSG:4258')->kind);
        self::assertSame(HorizontalSystem::GEOCENTRIC, Systems::horizontal('EPSG:4936')->kind);
        self::assertSame(3, Systems::horizontal('EPSG:4937')->dimension);
        self::assertTrue(Systems::registry()->isVertical('EPSG:5773'));
        self::assertFalse(Systems::registry()->isVertical('EPSG:25830'));
        $depth = Systems::registry()->verticalSystem('EPSG:5612');
        self::assertTrue($depth->down);
        $feet = Systems::registry()->verticalSystem('EPSG:5702');
        self::assertEqualsWithDelta(1200.0 / 3937.0, $feet->unit, 1e-12);
        $compound = Systems::registry()->system('EPSG:25830+EPSG:5773');
        self::assertTrue($compound->hasHeight());
        self::assertSame('EPSG:25830+EPSG:5773', $compound->code());
        self::assertStringContainsString('EGM96', $compound->name());
    }
}
