<?php

declare(strict_types=1);

namespace Mensura\Tests\Network;

use Mensura\Network\ApproximateCoordinates;
use Mensura\Network\GridFrame;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;
use Mensura\Tests\Reference\Systems;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each way of carrying coordinates outwards, on exact observations of a known place (plane trigonometry, common practice). */
final class ApproximateCoordinatesTest extends TestCase
{
    private const TRUTH = [
        'A' => [100.0, 200.0, 10.0], 'B' => [400.0, 250.0, 20.0], 'C' => [250.0, 500.0, 30.0],
        'P' => [260.0, 320.0, 15.0], 'Q' => [330.0, 380.0, 25.0],
    ];

    /**
     * @return iterable<string, array{list<string>, list<array{ObservationKind, string, string, 3?: string}>,
     * list<string>}> known stations, observations, stations to be found
     */
    public static function ways(): iterable
    {
        $d = ObservationKind::Direction;
        $s = ObservationKind::SlopeDistance;
        $h = ObservationKind::HorizontalDistance;
        $z = ObservationKind::Zenith;
        yield 'polar point from an oriented setup' => [['A', 'B'], [[$d, 'A', 'B'], [$d, 'A', 'P'], [$s, 'A', 'P'], [$z, 'A', 'P']], ['P']];
        yield 'polar point by an azimuth' => [['A'], [[ObservationKind::Azimuth, 'A', 'P'], [$h, 'A', 'P']], ['P']];
        yield 'azimuth from the unknown end' => [['A'], [[ObservationKind::Azimuth, 'P', 'A'], [$h, 'P', 'A']], ['P']];
        yield 'distance measured from the other end' => [['A', 'B'], [[$d, 'A', 'B'], [$d, 'A', 'P'], [$h, 'P', 'A']], ['P']];
        yield 'free station with two distances' => [['A', 'B'], [[$d, 'P', 'A'], [$d, 'P', 'B'], [$h, 'P', 'A'], [$h, 'P', 'B']], ['P']];
        yield 'intersection of two rays' => [['A', 'B'], [[$d, 'A', 'B'], [$d, 'A', 'P'], [$d, 'B', 'A'], [$d, 'B', 'P']], ['P']];
        yield 'resection on three points' => [['A', 'B', 'C'], [[$d, 'P', 'A'], [$d, 'P', 'B'], [$d, 'P', 'C']], ['P']];
        yield 'three distances' => [['A', 'B', 'C'], [[$h, 'P', 'A'], [$h, 'P', 'B'], [$h, 'P', 'C']], ['P']];
        yield 'an angle and a distance' => [['A', 'B'], [[ObservationKind::Angle, 'A', 'P', 'B'], [$h, 'A', 'P']], ['P']];
        yield 'a vector' => [['A'], [[ObservationKind::Vector, 'A', 'P']], ['P']];
        yield 'a vector backwards' => [['A'], [[ObservationKind::Vector, 'P', 'A']], ['P']];
        yield 'a block of its own between two known points' => [
            ['A', 'B'],
            [[$d, 'P', 'A'], [$h, 'P', 'A'], [$d, 'P', 'Q'], [$h, 'P', 'Q'], [$d, 'Q', 'P'], [$d, 'Q', 'B'], [$h, 'Q', 'B']],
            ['P', 'Q'],
        ];
    }

    /**
     * @param list<string>                                                    $known
     * @param list<array{ObservationKind, string, string, 3?: string}>       $sights
     * @param list<string>                                                    $wanted
     */
    #[DataProvider('ways')]
    public function testFindsThePlace(array $known, array $sights, array $wanted): void
    {
        [$e, $n] = ApproximateCoordinates::of($this->network($known, $sights));
        $index = array_flip(array_keys(self::TRUTH));
        foreach ($wanted as $id) {
            self::assertEqualsWithDelta(self::TRUTH[$id][0], $e[$index[$id]], 1e-6, $id);
            self::assertEqualsWithDelta(self::TRUTH[$id][1], $n[$index[$id]], 1e-6, $id);
        }
    }

    public function testHeightsAreCarriedByLevellingAndByZenithAngles(): void
    {
        $observations = [
            new Observation(ObservationKind::HeightDifference, 'A', 'B', 10.0),
            new Observation(
                ObservationKind::Zenith, 'B', 'C', rad2deg(atan2(hypot(150, 250), 10.0 + 1.6 - 1.5)),
                instrumentHeight: 1.5, targetHeight: 1.6,
            ),
        ];
        $stations = [new Station('A', 100.0, 200.0, 10.0), new Station('B', 400.0, 250.0, null), new Station('C', 250.0, 500.0, null)];
        [, , $h] = ApproximateCoordinates::of(new NetworkDefinition(new PlaneFrame(), new Settings(), $stations, $observations));
        self::assertEqualsWithDelta([10.0, 20.0, 30.0], $h, 1e-9);
    }

    public function testTheDangerCircleIsNotGuessed(): void
    {
        // P on the circle through A, B and C: a resection has no answer there.
        $truth = ['A' => [1.0, 0.0], 'B' => [0.0, 1.0], 'C' => [-1.0, 0.0], 'P' => [cos(-1.0), sin(-1.0)]];
        $stations = $observations = [];
        foreach ($truth as $id => [$e, $n]) {
            $stations[] = new Station($id, 'P' === $id ? null : 100.0 * $e, 'P' === $id ? null : 100.0 * $n, 0.0);
            if ('P' !== $id) {
                $observations[] = new Observation(
                    ObservationKind::Direction, 'P', $id, rad2deg(atan2($e - $truth['P'][0], $n - $truth['P'][1])),
                    set: '1',
                );
            }
        }
        [$e] = ApproximateCoordinates::of(new NetworkDefinition(new PlaneFrame(), new Settings(), $stations, $observations));
        self::assertNull($e[3]);
    }

    public function testVectorsCarryOnTheEllipsoid(): void
    {
        $frame = new GridFrame(Systems::horizontal('EPSG:25830'));
        $a = $frame->geometry(493000.0, 6028000.0, 200.0)['position'];
        $b = $frame->geometry(498000.0, 6031000.0, 350.0)['position'];
        $vector = new Observation(
            ObservationKind::Vector, 'A', 'B', null, components: [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]],
            covariance: [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]],
        );
        [$e, $n, $h] = ApproximateCoordinates::of(new NetworkDefinition(
            $frame,
            new Settings(),
            [new Station('A', 493000.0, 6028000.0, 200.0), new Station('B', null, null, null)],
            [$vector],
        ));
        self::assertEqualsWithDelta([498000.0, 6031000.0, 350.0], [$e[1], $n[1], $h[1]], 1e-6);
    }

    /**
     * @param list<string>                                              $known
     * @param list<array{ObservationKind, string, string, 3?: string}> $sights
     */
    private function network(array $known, array $sights): NetworkDefinition
    {
        $stations = [];
        foreach (self::TRUTH as $id => [$e, $n, $h]) {
            $stations[] = \in_array($id, $known, true) ? new Station($id, $e, $n, $h) : new Station($id, null, null, null);
        }
        $bearing = static fn (
            string $f, string $t,
        ): float => rad2deg(atan2(self::TRUTH[$t][0] - self::TRUTH[$f][0], self::TRUTH[$t][1] - self::TRUTH[$f][1]));
        $observations = [];
        foreach ($sights as $sight) {
            [$kind, $f, $t] = $sight;
            $back = $sight[3] ?? null;
            $plan = hypot(self::TRUTH[$t][0] - self::TRUTH[$f][0], self::TRUTH[$t][1] - self::TRUTH[$f][1]);
            $rise = self::TRUTH[$t][2] - self::TRUTH[$f][2];
            $turn = 37.0 * (\ord($f) - 60);
            $value = match ($kind) {
                ObservationKind::Direction => $bearing($f, $t) - $turn,
                ObservationKind::Azimuth => $bearing($f, $t),
                ObservationKind::Angle => $bearing($f, $t) - $bearing($f, (string) $back),
                ObservationKind::SlopeDistance => hypot($plan, $rise),
                ObservationKind::HorizontalDistance => $plan,
                ObservationKind::Zenith => rad2deg(atan2($plan, $rise)),
                ObservationKind::HeightDifference => $rise,
                ObservationKind::Vector => null,
            };
            $components = ObservationKind::Vector === $kind
                ? [self::TRUTH[$t][0] - self::TRUTH[$f][0], self::TRUTH[$t][1] - self::TRUTH[$f][1], $rise]
                : null;
            $observations[] = new Observation(
                $kind, $f, $t, $value, set: ObservationKind::Direction === $kind ? '1' : null, back: $back,
                components: $components,
            );
        }

        return new NetworkDefinition(new PlaneFrame(), new Settings(), $stations, $observations);
    }
}
