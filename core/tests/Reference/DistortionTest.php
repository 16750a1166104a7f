<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\OutsideProjection;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What a projection promises of angles and areas, from its derivatives alone (Tissot's indicatrix; Snyder, Map Projections: A
 * Working Manual, chapter 4).
 */
final class DistortionTest extends TestCase
{
    private const STEP = 1e-5;

    /** @return iterable<string, array{string}> */
    public static function conformal(): iterable
    {
        foreach ([
            'transverse Mercator' => 'EPSG:25830', 'with Airy' => 'EPSG:27700', 'south-orientated' => 'EPSG:2048',
            'cone of two parallels' => 'EPSG:2154', 'cone of one' => 'EPSG:24200', 'Belgian cone' => 'EPSG:31300',
            'oblique Mercator A' => 'EPSG:29873', 'oblique Mercator B' => 'EPSG:3079', 'Swiss' => 'EPSG:2056',
            'oblique stereographic' => 'EPSG:28992', 'polar stereographic A' => 'EPSG:5041',
            'polar stereographic B' => 'EPSG:3031', 'Krovak' => 'EPSG:5514', 'Mercator A' => 'EPSG:3001',
            'Mercator B' => 'EPSG:3388',
        ] as $name => $code) {
            yield $name => [$code];
        }
    }

    /** The same scale in every direction, and right angles that stay right. */
    #[DataProvider('conformal')]
    public function testConformalProjectionsKeepAngles(string $code): void
    {
        foreach (self::places(Systems::horizontal($code)) as $message => [$h, $k, $sine]) {
            self::assertEqualsWithDelta(1.0, $h / $k, 2e-6, $message);
            self::assertEqualsWithDelta(1.0, $sine, 1e-8, $message);
        }
    }

    /** @return iterable<string, array{string}> */
    public static function equalArea(): iterable
    {
        foreach ([
            'Albers' => 'EPSG:5070', 'azimuthal' => 'EPSG:3035', 'azimuthal, polar' => 'EPSG:6931',
            'cylindrical' => 'EPSG:6933',
        ] as $name => $code) {
            yield $name => [$code];
        }
    }

    /** The product of both scales with the sine between them is one. */
    #[DataProvider('equalArea')]
    public function testEqualAreaProjectionsKeepAreas(string $code): void
    {
        $system = Systems::horizontal($code);
        $seen = false;
        foreach (self::places($system) as $message => [$h, $k, $sine]) {
            self::assertEqualsWithDelta(1.0, $h * $k * $sine, 2e-6, $message);
            $seen = $seen || abs($h / $k - 1.0) > 1e-4;
        }
        self::assertTrue($seen, 'It pays with its angles.');
    }

    /** GridPoint says the same scales, and the convergence is where grid north points. */
    #[DataProvider('conformal')]
    public function testPointFactorsAgreeWithTheDerivatives(string $code): void
    {
        $system = Systems::horizontal($code);
        foreach (self::places($system) as $message => [$h, $k, , $lat, $lon]) {
            [$e, $n] = $system->fromGeographic($lat, $lon);
            $p = GridPoint::at($system, $e, $n, 0.0);
            self::assertEqualsWithDelta($k, $p->scale, 3e-6, $message);
            self::assertEqualsWithDelta($h, $p->scaleAcross, 3e-6, $message);
            [$e2, $n2] = $system->fromGeographic($lat + self::STEP, $lon);
            // Convergence: grid bearing of the meridian, with the sign turned.
            $bearing = rad2deg(atan2($e2 - $e, $n2 - $n));
            self::assertEqualsWithDelta(0.0, fmod($p->convergence + $bearing + 540.0, 360.0) - 180.0, 2e-3, $message);
        }
    }

    /** Central scale factors are what the registry says they are, on the axis. */
    public function testCentralScales(): void
    {
        foreach ([
            ['EPSG:25830', 54.0, -3.0, 0.9996], ['EPSG:27700', 52.0, -2.0, 0.9996012717],
            ['EPSG:31467', 50.0, 9.0, 1.0],
            ['EPSG:28992', 52.0 + 9.0 / 60.0 + 22.178 / 3600.0, 5.0 + 23.0 / 60.0 + 15.5 / 3600.0, 0.9999079],
            ['EPSG:2056', 46.9524055555556, 7.43958333333333, 1.0], ['EPSG:24200', 18.0, -77.0, 1.0],
        ] as [$code, $lat, $lon, $scale]) {
            $system = Systems::horizontal($code);
            [$e, $n] = $system->fromGeographic(deg2rad($lat), deg2rad($lon));
            self::assertEqualsWithDelta($scale, GridPoint::at($system, $e, $n, 0.0)->scale, 1e-7, $code);
        }
        // Two standard parallels keep their lengths.
        $cone = Systems::horizontal('EPSG:2154');
        foreach ([44.0, 49.0] as $parallel) {
            [$e, $n] = $cone->fromGeographic(deg2rad($parallel), deg2rad(3.0));
            self::assertEqualsWithDelta(1.0, GridPoint::at($cone, $e, $n, 0.0)->scale, 1e-7);
        }
    }

    /**
     * @return iterable<string, array{float, float, float, float, float}> scales along meridian and parallel, sine of
     * the angle between their images, latitude, longitude (radians)
     */
    private static function places(HorizontalSystem $system): iterable
    {
        $area = $system->area ?? self::fail('no area');
        $el = $system->ellipsoid();
        foreach ([[0.2, 0.3], [0.5, 0.5], [0.8, 0.6], [0.4, 0.9]] as [$v, $u]) {
            $lat = deg2rad($area->south + $v * ($area->north - $area->south));
            $lon = deg2rad($area->west + $u * $area->width());
            if (abs($lat) > 1.5) {
                continue;
            }
            try {
                [$e1, $n1] = $system->fromGeographic($lat + self::STEP, $lon);
                [$e0, $n0] = $system->fromGeographic($lat - self::STEP, $lon);
                [$e3, $n3] = $system->fromGeographic($lat, $lon + self::STEP);
                [$e2, $n2] = $system->fromGeographic($lat, $lon - self::STEP);
            } catch (OutsideProjection) {
                continue;
            }
            $m = 2.0 * self::STEP * $el->meridian($lat);
            $p = 2.0 * self::STEP * $el->primeVertical($lat) * cos($lat);
            [$hx, $hy, $kx, $ky] = [($e1 - $e0) / $m, ($n1 - $n0) / $m, ($e3 - $e2) / $p, ($n3 - $n2) / $p];
            $h = hypot($hx, $hy);
            $k = hypot($kx, $ky);
            yield \sprintf(
                '%s at %.2f %.2f', $system->label(), rad2deg($lat), rad2deg($lon),
            ) => [$h, $k, abs($hx * $ky - $hy * $kx) / ($h * $k), $lat, $lon];
        }
    }
}
