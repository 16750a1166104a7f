<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\ErrorEllipse;
use Mensura\Network\GridFrame;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\NetworkState;
use Mensura\Network\ObservationEquations;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Coefficients against central differences of the observation functions themselves, in both frames. */
final class SightTest extends TestCase
{
    /** @return iterable<string, array{bool, ObservationKind}> */
    public static function kinds(): iterable
    {
        foreach ([true, false] as $plane) {
            foreach (ObservationKind::cases() as $kind) {
                yield ($plane ? 'plane ' : 'crs ').$kind->value => [$plane, $kind];
            }
        }
    }

    #[DataProvider('kinds')]
    public function testCoefficientsAreTheDerivatives(bool $plane, ObservationKind $kind): void
    {
        $frame = $plane ? new PlaneFrame() : new GridFrame(Systems::horizontal('EPSG:25830'));
        $e = [493000.0, 493350.0, 492800.0];
        $n = [6028000.0, 6028240.0, 6028300.0];
        $h = [200.0, 237.0, 181.0];
        $stations = [new Station('A', $e[0], $n[0], $h[0]), new Station('B', $e[1], $n[1], $h[1]), new Station('C', $e[2], $n[2], $h[2])];
        $o = new Observation(
            $kind, 'A', 'B', 1.0, back: ObservationKind::Angle === $kind ? 'C' : null, instrumentHeight: 1.5,
            targetHeight: 1.8,
        );
        $network = new NetworkDefinition($frame, new Settings(refraction: 0.13), $stations, [$o]);
        $compute = static function (array $shift) use ($frame, $network, $o, $e, $n, $h): array {
            $state = new NetworkState(
                $frame, [$e[0] + $shift[0], $e[1] + $shift[3], $e[2] + $shift[6]],
                [$n[0] + $shift[1], $n[1] + $shift[4], $n[2] + $shift[7]],
                [$h[0] + $shift[2], $h[1] + $shift[5], $h[2] + $shift[8]],
            );

            return (new ObservationEquations($network, $state))->of($o, null);
        };
        $rows = $compute(array_fill(0, 9, 0.0));
        foreach ($rows as $r => [, $coefficients]) {
            $norm = sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $coefficients)));
            foreach ($coefficients as $k => $coefficient) {
                $step = 0.5;
                $plus = array_fill(0, 9, 0.0);
                $minus = $plus;
                $plus[$k] = $step;
                $minus[$k] = -$step;
                $numeric = ($compute($plus)[$r][0] - $compute($minus)[$r][0]) / (2 * $step);
                // Left out are the shifts of the raised instrument and target: below 3e-7 of the largest.
                self::assertEqualsWithDelta($numeric, $coefficient, 3e-6 * $norm, "row $r coefficient $k");
            }
        }
    }

    /**
     * The bearing of a level sight to the grid east differs from the azimuth there by the meridian convergence (about
     * 1.0 km east: 0.0146 deg at 54.4 N, common practice).
     */
    public function testAzimuthsAreFromTheMeridian(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        $stations = [new Station('A', 400000.0, 6028000.0, 0.0), new Station('B', 400000.0, 6028100.0, 0.0)];
        $o = new Observation(ObservationKind::Azimuth, 'A', 'B', 0.0);
        $network = new NetworkDefinition($frame, new Settings(), $stations, [$o]);
        $azimuth = (new ObservationEquations(
            $network,
            new NetworkState($frame, [400000.0, 400000.0], [6028000.0, 6028100.0], [0.0, 0.0]),
        ))->of($o, null)[0][0];
        [$lat, $lon] = $frame->system->projection->inverse(400000.0, 6028000.0);
        // Convergence of the transverse Mercator sphere: atan(tan(dlon) sin(lat)).
        self::assertEqualsWithDelta(atan(tan($lon - deg2rad(-3.0)) * sin($lat)), $azimuth, 2e-6);
    }

    /** Scale of UTM at its central meridian is 0.9996: a hundred metres of grid are 100.04 m on the ellipsoid. */
    public function testDistancesAreOnTheGround(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        foreach ([0.0 => 100.0 / 0.9996, 1000.0 => 100.0 / 0.9996 * (1.0 + 1000.0 / 6385000.0)] as $height => $expected) {
            $stations = [new Station('A', 500000.0, 6028000.0, (float) $height), new Station('B', 500100.0, 6028000.0, (float) $height)];
            $o = new Observation(ObservationKind::SlopeDistance, 'A', 'B', 100.0);
            $network = new NetworkDefinition($frame, new Settings(), $stations, [$o]);
            $state = new NetworkState($frame, [500000.0, 500100.0], [6028000.0, 6028000.0], [(float) $height, (float) $height]);
            self::assertEqualsWithDelta($expected, (new ObservationEquations($network, $state))->of($o, null)[0][0], 1e-4);
        }
    }

    /** Curvature less refraction of k = 0.13 over one kilometre is about 0.068 m (handbooks: 0.0675 m per km^2). */
    public function testCurvatureAndRefraction(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        $stations = [new Station('A', 500000.0, 6028000.0, 100.0), new Station('B', 500000.0, 6028999.6, 100.0)];
        $o = new Observation(ObservationKind::Zenith, 'A', 'B', 90.0);
        $network = new NetworkDefinition($frame, new Settings(refraction: 0.13), $stations, [$o]);
        $zenith = (new ObservationEquations(
            $network,
            new NetworkState($frame, [500000.0, 500000.0], [6028000.0, 6028999.6], [100.0, 100.0]),
        ))->of($o, null)[0][0];
        self::assertEqualsWithDelta(0.068, 1000.0 * ($zenith - \M_PI_2), 0.001);
    }

    public function testEllipsesOfKnownCovariances(): void
    {
        self::assertEquals(['semiMajor' => 3.0, 'semiMinor' => 2.0, 'bearing' => 90.0], ErrorEllipse::of(9.0, 0.0, 4.0, 1.0));
        self::assertEquals(['semiMajor' => 3.0, 'semiMinor' => 2.0, 'bearing' => 0.0], ErrorEllipse::of(4.0, 0.0, 9.0, 1.0));
        $turned = ErrorEllipse::of(6.5, -2.5, 6.5, 2.0);
        self::assertEqualsWithDelta([6.0, 4.0, 135.0], array_values($turned), 1e-12);
    }
}
