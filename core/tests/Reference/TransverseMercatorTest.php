<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Method\TransverseMercator;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\UnknownSystem;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

final class TransverseMercatorTest extends TestCase
{
    public function testAgreesWithProjBothWays(): void
    {
        foreach (Fixture::csv('reference/utm.csv') as $row) {
            $projection = Systems::horizontal($row['code'])->plane();
            [$e, $n] = $projection->forward(deg2rad((float) $row['lat']), deg2rad((float) $row['lon']));
            self::assertEqualsWithDelta((float) $row['e'], $e, 2e-6, implode(' ', $row));
            self::assertEqualsWithDelta((float) $row['n'], $n, 2e-6, implode(' ', $row));
            [$lat, $lon] = $projection->inverse((float) $row['e'], (float) $row['n']);
            self::assertEqualsWithDelta((float) $row['lat'], rad2deg($lat), 2e-11);
            self::assertEqualsWithDelta((float) $row['lon'], rad2deg($lon), 1e-10);
        }
    }

    /** EPSG Guidance Note 7-2, method 9807, example OSGB36 / British National Grid (values from memory, where PROJ gives
     * 577274.984, 69740.492: the printed example rounds its intermediate terms, hence a centimetre). */
    public function testGuidanceNoteExample(): void
    {
        $airy = new Ellipsoid('Airy 1830', 6377563.396, 299.3249646);
        $projection = new TransverseMercator($airy, deg2rad(49.0), deg2rad(-2.0), 0.9996012717, 400000.0, -100000.0);
        [$e, $n] = $projection->forward(deg2rad(50.5), deg2rad(0.5));
        self::assertEqualsWithDelta(577274.99, $e, 0.01);
        self::assertEqualsWithDelta(69740.50, $n, 0.01);
    }

    /** Ordnance Survey, A guide to coordinate systems in Great Britain, annex C worked example (from memory). */
    public function testOrdnanceSurveyExample(): void
    {
        $airy = new Ellipsoid('Airy 1830', 6377563.396, 299.3249646);
        $projection = new TransverseMercator($airy, deg2rad(49.0), deg2rad(-2.0), 0.9996012717, 400000.0, -100000.0);
        [$e, $n] = $projection->forward(deg2rad(52 + 39 / 60 + 27.2531 / 3600), deg2rad(1 + 43 / 60 + 4.5177 / 3600));
        self::assertEqualsWithDelta(651409.903, $e, 0.001);
        self::assertEqualsWithDelta(313177.270, $n, 0.001);
    }

    public function testFarFromTheCentralMeridianIsRefused(): void
    {
        $this->expectException(OutsideProjection::class);
        Systems::horizontal('EPSG:25830')->plane()->forward(0.5, deg2rad(80.0));
    }

    public function testUnknownSystemSaysWhatThereIs(): void
    {
        $this->expectException(UnknownSystem::class);
        $this->expectExceptionMessageMatches('/EPSG:2 is not in the registry/');
        Systems::horizontal('EPSG:2');
    }

    public function testGeocentricRoundTrip(): void
    {
        $ellipsoid = Ellipsoid::grs80();
        foreach ([[0.0, 0.0, 0.0], [54.4, -3.1, 181.25], [-89.9, 170.0, 8000.0], [12.0, -179.0, -400.0]] as [$lat, $lon, $h]) {
            [$x, $y, $z] = $ellipsoid->toCartesian(deg2rad($lat), deg2rad($lon), $h);
            [$p, $l, $height] = $ellipsoid->toGeodetic($x, $y, $z);
            self::assertEqualsWithDelta($lat, rad2deg($p), 1e-12);
            self::assertEqualsWithDelta($lon, rad2deg($l), 1e-12);
            self::assertEqualsWithDelta($h, $height, 1e-8);
        }
    }
}
