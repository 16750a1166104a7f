<?php

declare(strict_types=1);

namespace Mensura\Tests\Geodesy;

use Mensura\Geodesy\AuxiliaryLatitude;
use Mensura\Geodesy\Ellipsoid;
use Mensura\Geodesy\Geodesic;
use Mensura\Tests\Fixture;
use PHPUnit\Framework\TestCase;

final class GeodesicTest extends TestCase
{
    /** GeographicLib's GeodSolve on random, nearly antipodal, short, equatorial and meridional lines (fixtures/reference/geodesics.py). */
    public function testInverseAndDirectAgreeWithGeographicLib(): void
    {
        $geodesic = new Geodesic(Ellipsoid::wgs84());
        foreach (Fixture::csv('reference/geodesics.csv') as $row) {
            $r = array_map('floatval', $row);
            $message = implode(' ', $row);
            $inverse = $geodesic->inverse($r['lat1'], $r['lon1'], $r['lat2'], $r['lon2']);
            self::assertEqualsWithDelta($r['distance'], $inverse['distance'], 8e-9, $message);
            $direct = $geodesic->direct($r['lat1'], $r['lon1'], $r['azimuth1'], $r['distance']);
            self::assertEqualsWithDelta($r['lat2'], $direct['lat'], 2e-13, $message);
            self::assertEqualsWithDelta(
                0.0,
                sin(deg2rad($direct['lon'] - $r['lon2']) / 2.0) * cos(deg2rad($r['lat2'])) * 2.0 * 6.4e6,
                2e-8,
                $message,
            );
            // Azimuths mean something where the line has length and does not end at a pole.
            if ($r['distance'] > 1000.0 && $r['distance'] < 1.9e7 && abs($r['lat1']) < 89.9) {
                self::assertEqualsWithDelta(0.0, sin(deg2rad($inverse['azimuth1'] - $r['azimuth1'])), 1e-11, $message);
            }
        }
    }

    /** Karney (2013), J. Geodesy 87, table 2 (value from memory). */
    public function testPublishedDirectProblem(): void
    {
        $r = (new Geodesic(Ellipsoid::wgs84()))->direct(40.0, 0.0, 30.0, 1e7);
        self::assertEqualsWithDelta(41.79331020506, $r['lat'], 1e-11);
        self::assertEqualsWithDelta(137.84490004377, $r['lon'], 1e-11);
        self::assertEqualsWithDelta(149.09016931807, $r['azimuth'], 1e-11);
    }

    /** A quarter of the meridian by Simpson's rule on the radius of curvature; and there and back. */
    public function testAuxiliaryLatitudes(): void
    {
        $el = new Ellipsoid('International 1924', 6378388.0, 297.0);
        $latitude = new AuxiliaryLatitude($el);
        $sum = 0.0;
        $steps = 2000;
        for ($i = 0; $i <= $steps; ++$i) {
            $sum += (0 === $i || $steps === $i ? 1.0 : (0 === $i % 2 ? 2.0 : 4.0)) * $el->meridian(\M_PI_2 * $i / $steps);
        }
        self::assertEqualsWithDelta($sum * \M_PI_2 / $steps / 3.0, $latitude->meridianDistance(\M_PI_2), 1e-6);
        foreach ([-1.5, -0.3, 0.0, 0.7, 1.5707] as $lat) {
            self::assertEqualsWithDelta($lat, $latitude->fromMeridianDistance($latitude->meridianDistance($lat)), 1e-14);
            self::assertEqualsWithDelta($lat, $latitude->fromConformalTangent($latitude->conformalTangent(tan($lat))), 1e-14);
            self::assertEqualsWithDelta($lat, $latitude->fromIsometric($latitude->isometric($lat)), 1e-13);
            self::assertEqualsWithDelta($lat, $latitude->fromAuthalicQ($latitude->authalicQ(sin($lat))), 1e-11);
        }
    }

    public function testALatitudeBeyondThePoleIsRefused(): void
    {
        $this->expectException(\DomainException::class);
        (new Geodesic(Ellipsoid::wgs84()))->inverse(91.0, 0.0, 0.0, 0.0);
    }
}
