<?php

declare(strict_types=1);

namespace Mensura\Tests\Reference;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Ground\GridPoint;
use Mensura\Reference\Ground\Inverse;
use Mensura\Reference\Ground\LowDistortion;
use Mensura\Reference\Ground\ScaledSystem;
use Mensura\Reference\UnsupportedMethod;
use PHPUnit\Framework\TestCase;

final class GroundTest extends TestCase
{
    /** Redfearn's leading terms of transverse Mercator: k = k0 (1 + x^2 / (2 R^2 k0^2)), convergence = d lon sin(lat) (handbooks). */
    public function testConvergenceAndScaleOfTransverseMercator(): void
    {
        $system = Systems::horizontal('EPSG:25830');
        $p = GridPoint::at($system, 600000.0, 6028000.0, 200.0);
        self::assertEqualsWithDelta(0.9996 * (1.0 + 100000.0 ** 2 / (2.0 * ($p->radius * 0.9996) ** 2)), $p->scale, 2e-8);
        self::assertEqualsWithDelta($p->scale, $p->scaleAcross, 1e-9);
        $d = deg2rad($p->lonDegrees + 3.0);
        self::assertEqualsWithDelta(rad2deg($d * sin(deg2rad($p->latDegrees))), $p->convergence, 2e-4);
        self::assertEqualsWithDelta($p->radius / ($p->radius + 200.0), $p->heightFactor, 1e-15);
        self::assertGreaterThan(0.0, $p->convergence);
    }

    public function testTheInverseIsConsistentWithItself(): void
    {
        foreach ([
            'EPSG:25830' => [493120.412, 6028061.238], 'EPSG:2154' => [900000.0, 6600000.0],
            'EPSG:3035' => [4000000.0, 3000000.0],
        ] as $code => [$e, $n]) {
            $system = Systems::horizontal($code);
            $i = Inverse::between($system, [$e, $n, 236.4], [$e + 900.0, $n + 1200.0, 281.9], 52.0, 52.1);
            self::assertEqualsWithDelta(1500.0, $i->gridDistance, 1e-9);
            self::assertEqualsWithDelta(rad2deg(atan2(900.0, 1200.0)), $i->gridBearing, 1e-9);
            // Simpson's line scale carries the ellipsoidal distance to the grid, to a tenth of a millimetre over this line.
            self::assertEqualsWithDelta($i->gridDistance, $i->ellipsoidalDistance * $i->lineScale, 2e-4, $code);
            self::assertEqualsWithDelta(45.5, $i->heightDifference, 1e-9);
            // The slope distance closes on ground distance and ellipsoidal height difference.
            self::assertEqualsWithDelta(hypot($i->groundDistance, 45.6), $i->slopeDistance, 1e-4, $code);
            if ('EPSG:3035' !== $code) {
                self::assertEqualsWithDelta(
                    0.0,
                    fmod($i->azimuthFrom - $i->azimuthTo + 720.0, 360.0) - 180.0 + ($i->to->convergence - $i->from->convergence),
                    1e-4,
                    $code,
                );
                self::assertEqualsWithDelta($i->gridBearing + $i->from->convergence, $i->azimuthFrom, 2e-4, $code);
            }
        }
    }

    public function testScaledToGroundKeepsItsPointAndGivesGroundDistances(): void
    {
        foreach ([
            'EPSG:25830' => [493120.412, 6028061.238], 'EPSG:2154' => [900000.0, 6600000.0],
            'EPSG:2056' => [2600000.0, 1200000.0],
        ] as $code => [$e, $n]) {
            $system = Systems::horizontal($code);
            $factor = 1.0 / GridPoint::at($system, $e, $n, 450.0)->combined();
            $ground = ScaledSystem::about($system, 'site', $e, $n, $factor);
            [$lat, $lon] = $system->toGeographic($e, $n);
            [$x, $y] = $ground->fromGeographic($lat, $lon);
            self::assertEqualsWithDelta($e, $x, 1e-6);
            self::assertEqualsWithDelta($n, $y, 1e-6);
            [$lat, $lon] = $system->toGeographic($e + 300.0, $n - 400.0);
            [$p, $q] = $ground->fromGeographic($lat, $lon);
            self::assertEqualsWithDelta(500.0 * $factor, hypot($p - $x, $q - $y), 1e-6, $code);
        }
        $this->expectException(UnsupportedMethod::class);
        ScaledSystem::about(Systems::horizontal('EPSG:3035'), 'site', 4e6, 3e6, 1.0001);
    }

    public function testLowDistortionBringsTheSitesHeightToZero(): void
    {
        $etrs = Systems::horizontal('EPSG:4258');
        $design = LowDistortion::propose('tarn', $etrs->datum, $etrs->code, $etrs->name, new Area(54.35, -3.2, 54.45, -3.0), 1200.0);
        self::assertLessThan(3.0, max(abs($design['ppm']['min']), abs($design['ppm']['max'])));
        self::assertEqualsWithDelta(1.0 + 1200.0 / 6381000.0, $design['scale'], 1e-6);
        // The same site in its UTM zone is some 590 ppm off: 400 of the zone's scale and 188 of the height.
        self::assertEqualsWithDelta(-588.0, LowDistortion::ppm(Systems::horizontal('EPSG:25830'), 54.4, -3.0, 1200.0), 2.0);
        // A long east-west strip asks for a cone.
        self::assertSame(
            'Lambert Conic Conformal (1SP)',
            LowDistortion::propose('strip', $etrs->datum, $etrs->code, $etrs->name, new Area(54.39, -5.0, 54.41, -1.0), 100.0)['method'],
        );
        self::assertSame(
            'Transverse Mercator',
            LowDistortion::propose('strip', $etrs->datum, $etrs->code, $etrs->name, new Area(53.0, -3.01, 56.0, -2.99), 100.0)['method'],
        );
    }
}
