<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\Adjustment;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;
use PHPUnit\Framework\TestCase;

/** Against weighted means, which need no matrix: common practice. */
final class RelativeEllipsesTest extends TestCase
{
    /** From the held A to B and to C, and from B to C, each vector of 10 mm: the direct one and the way round come to a mean. */
    public function testATriangleOfVectors(): void
    {
        $vector = static fn (string $from, string $to, float $e, float $n): Observation => new Observation(
            ObservationKind::Vector, $from, $to, null, components: [$e, $n, 0.0],
            covariance: [[1e-4, 0.0, 0.0], [0.0, 1e-4, 0.0], [0.0, 0.0, 1e-4]],
        );
        $adjustment = new Adjustment(new NetworkDefinition(new PlaneFrame(), new Settings(), [
            new Station('A', 0.0, 0.0, 0.0, [true, true, true]), new Station('B', 100.0, 0.0, 0.0), new Station('C', 0.0, 100.0, 0.0),
        ], [$vector('A', 'B', 100.0, 0.0), $vector('A', 'C', 0.0, 100.0), $vector('B', 'C', -100.0, 100.0)]));
        $stations = array_column($adjustment->run()->stations, null, 'id');
        $relative = [];
        foreach ($adjustment->relative() as $r) {
            $relative[$r['from'].$r['to']] = $r;
        }
        self::assertSame(['AB', 'AC', 'BC'], array_keys($relative));
        // Seen from a held station, the ellipse is the station's own.
        self::assertEqualsWithDelta($stations['B']['ellipse']['semiMajor'], $relative['AB']['semiMajor'], 1e-12);
        // Weights 1 and 1/2: the variance of the mean is two thirds; 95 % in the plane is 2.4477 times (chi-square, 2 degrees).
        $expected = 2.44774683 * sqrt(2.0 / 3.0) * 0.01;
        foreach ($relative as $r) {
            self::assertEqualsWithDelta($expected, $r['semiMajor'], 1e-9);
            self::assertEqualsWithDelta($expected, $r['semiMinor'], 1e-9);
            self::assertEqualsWithDelta(sqrt(2.0 / 3.0) * 0.01, $r['sdH'], 1e-12);
        }
    }

    /** A distance and a direction from a held station: 3 mm along, and 2 seconds of arc across 1000 m. */
    public function testAlongAndAcrossASight(): void
    {
        $adjustment = new Adjustment(new NetworkDefinition(new PlaneFrame(), new Settings(confidence: 0.3934693402873666), [
            new Station('A', 0.0, 0.0, 0.0, [true, true, true]), new Station('B', 600.0, 800.0, 0.0, [false, false, true]),
        ], [
            new Observation(ObservationKind::HorizontalDistance, 'B', 'A', 1000.0, 0.003),
            new Observation(ObservationKind::Azimuth, 'A', 'B', rad2deg(atan2(600.0, 800.0)), 2.0 / 3600.0),
        ]));
        $adjustment->run();
        [$r] = $adjustment->relative();
        self::assertEqualsWithDelta(deg2rad(2.0 / 3600.0) * 1000.0, $r['semiMajor'], 1e-9);
        self::assertEqualsWithDelta(0.003, $r['semiMinor'], 1e-9);
        self::assertEqualsWithDelta(rad2deg(atan2(600.0, 800.0)) + 90.0, $r['bearing'], 1e-6);
        self::assertEqualsWithDelta(0.0, $r['sdH'], 1e-12);
    }
}
