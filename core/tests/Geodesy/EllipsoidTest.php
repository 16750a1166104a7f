<?php

declare(strict_types=1);

namespace Mensura\Tests\Geodesy;

use Mensura\Geodesy\Ellipsoid;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class EllipsoidTest extends TestCase
{
    /** @return iterable<string, array{float, float, float, float, float, float}> by cs2cs EPSG:4979 to EPSG:4978 (PROJ 9.1.1) */
    public static function cartesian(): iterable
    {
        yield 'north west' => [54.4, -3.1, 230.5, 3715792.5366, -201240.1303, 5162975.5539];
        yield 'south east, below' => [-33.9, 151.2, -12.0, -4643937.2993, 2553026.1348, -3537238.6550];
        // The axes of the ellipsoid itself: a = 6378137, b = 6356752.314245 (NIMA TR8350.2).
        yield 'equator' => [0.0, 0.0, 0.0, 6378137.0, 0.0, 0.0];
        yield 'pole' => [90.0, 0.0, 0.0, 0.0, 0.0, 6356752.314245];
    }

    #[DataProvider('cartesian')]
    public function testCartesianAndBack(float $lat, float $lon, float $h, float $x, float $y, float $z): void
    {
        $e = Ellipsoid::wgs84();
        [$a, $b, $c] = $e->toCartesian(deg2rad($lat), deg2rad($lon), $h);
        self::assertEqualsWithDelta($x, $a, 1e-4);
        self::assertEqualsWithDelta($y, $b, 1e-4);
        self::assertEqualsWithDelta($z, $c, 1e-4);
        [$phi, $lambda, $height] = $e->toGeodetic($a, $b, $c);
        self::assertEqualsWithDelta($lat, rad2deg($phi), 1e-12);
        self::assertEqualsWithDelta($h, $height, 1e-8);
        if (abs($lat) < 90.0) {
            self::assertEqualsWithDelta($lon, rad2deg($lambda), 1e-12);
        }
    }

    /** From the deepest trench to a navigation satellite, the way there and back closes to a nanometre or the last bits. */
    public function testClosesEverywhere(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(11));
        foreach ([
            Ellipsoid::wgs84(), new Ellipsoid('Bessel 1841', 6377397.155, 299.1528128),
            new Ellipsoid('sphere', 6371000.0, \INF),
        ] as $e) {
            foreach ([-11000.0, 0.0, 8800.0, 400000.0, 20200000.0] as $h) {
                for ($i = 0; $i < 60; ++$i) {
                    $lat = deg2rad($random->getInt(-90000, 90000) / 1000.0);
                    $lon = deg2rad($random->getInt(-179999, 179999) / 1000.0);
                    [$phi, $lambda, $height] = $e->toGeodetic(...$e->toCartesian($lat, $lon, $h));
                    self::assertEqualsWithDelta(0.0, ($phi - $lat) * $e->a, 2e-8, "$e->name $h");
                    self::assertEqualsWithDelta(0.0, sin($lambda - $lon) * cos($lat) * $e->a, 2e-8);
                    self::assertEqualsWithDelta($h, $height, 2e-8 + 1e-15 * abs($h) * 10.0);
                }
            }
        }
    }

    /** M(0) = a (1 - e²), N(0) = a, M(90°) = N(90°) = a / sqrt(1 - e²): Rapp, Geometric Geodesy I, section 3. */
    public function testRadiiOfCurvature(): void
    {
        $e = Ellipsoid::grs80();
        self::assertEqualsWithDelta($e->a * (1.0 - $e->e2), $e->meridian(0.0), 1e-8);
        self::assertEqualsWithDelta($e->a, $e->primeVertical(0.0), 1e-8);
        $polar = $e->a / sqrt(1.0 - $e->e2);
        self::assertEqualsWithDelta($polar, $e->meridian(\M_PI_2), 1e-6);
        self::assertEqualsWithDelta($polar, $e->primeVertical(\M_PI_2), 1e-6);
        // GRS 80 (Moritz 1980): polar radius of curvature 6 399 593.6259 m.
        self::assertEqualsWithDelta(6399593.6259, $polar, 1e-4);
        foreach ([0.2, 0.7, 1.2] as $lat) {
            self::assertLessThan($e->primeVertical($lat), $e->meridian($lat));
        }
    }

    /** GRS 80: e² = 0.006 694 380 022 90, 1/f = 298.257 222 101 (Moritz 1980). */
    public function testDerivedConstants(): void
    {
        $e = Ellipsoid::grs80();
        self::assertEqualsWithDelta(0.00669438002290, $e->e2, 1e-14);
        self::assertEqualsWithDelta(1.0 / 298.257222101, $e->f, 1e-18);
        $sphere = new Ellipsoid('sphere', 6371000.0, \INF);
        self::assertSame([0.0, 0.0], [$sphere->f, $sphere->e2]);
    }

    /** @return iterable<string, array{float, float}> */
    public static function impossible(): iterable
    {
        yield 'no size' => [0.0, 298.0];
        yield 'negative' => [-6378137.0, 298.0];
        yield 'not a number' => [\NAN, 298.0];
        yield 'flattened away' => [6378137.0, 0.5];
    }

    #[DataProvider('impossible')]
    public function testImpossibleEllipsoidsAreRefused(float $a, float $inverseFlattening): void
    {
        $this->expectException(\DomainException::class);
        new Ellipsoid('x', $a, $inverseFlattening);
    }
}
