<?php

declare(strict_types=1);

namespace Mensura\Tests\Passes;

use Demo\Street;
use Mensura\Passes\ControlKnots;
use Mensura\Passes\Correction;
use Mensura\Passes\Pass;
use Mensura\Passes\PassAlignment;
use Mensura\Passes\PassComparison;
use Mensura\Passes\PassesResult;
use Mensura\Passes\PassSet;
use Mensura\Passes\Sighting;
use Mensura\Passes\Station;
use Mensura\Passes\StationShift;
use Mensura\Passes\Trajectory;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** The truth is that of the scene: how wrong each drive is at each time is known to the test alone. */
final class PassAlignmentTest extends TestCase
{
    private const LENGTH = 100.0;
    private const POINTS = 1_500;
    private const BETWEEN = 2.5;

    public function testTheShiftsOfAPassAreThoseItIsWrongBy(): void
    {
        $wrong = static fn (float $t): array => [0.3 + 0.002 * ($t - 500.0), -0.25, 0.1 - 0.004 * ($t - 500.0)];
        $set = $this->drives(self::right(...), $wrong);
        $c = $this->compared($set);

        self::assertSame(PassComparison::CORRECTED, $c->status);
        self::assertCount(6, $c->stations);
        foreach ($c->stations as $station) {
            self::assertTrue($station->isUsed(), (string) $station->reason);
            foreach ($wrong($station->time) as $axis => $off) {
                self::assertEqualsWithDelta(-$off, $station->shift[$axis] ?? \INF, 0.01, "at {$station->time}, axis $axis");
                // Four standard deviations: a claim of precision that holds.
                self::assertLessThan(4.0 * ($station->sd[$axis] ?? 0.0), abs(($station->shift[$axis] ?? \INF) + $off));
            }
            self::assertLessThan(0.01, $station->rmsAfter);
            self::assertGreaterThan(0.1, $station->rmsBefore);
        }
        self::assertGreaterThan(0.1, $c->rmsBefore);
        self::assertLessThan(0.01, $c->rmsAfter);
    }

    public function testTheReferenceIsTakenAsControlHasIt(): void
    {
        $off = static fn (float $t): array => [0.4, 0.1, -0.2];
        $set = $this->drives($off, self::right(...), sightings: [new Sighting('T', true, 0, 5.0, [0.4, 0.1, -0.2], [0.0, 0.0, 0.0])]);
        $result = PassAlignment::of($set);

        self::assertSame([PassesResult::CONTROL, PassesResult::REFERENCE], [$result->method(0), $result->method(1)]);
        // The second drive is right: laid onto the first as it is registered it stays where it is.
        self::assertEqualsWithDelta([0.0, 0.0, 0.0], $result->correction(1)->at(506.0), 0.01);
    }

    public function testPassesFarApartAskForAPickedPairAndFitAfterIt(): void
    {
        $wrong = static fn (float $t): array => [2.0, 1.5, -0.1];
        $apart = $this->compared($this->drives(self::right(...), $wrong));
        self::assertSame(PassComparison::NEEDS_PRE_SHIFT, $apart->status);
        self::assertStringContainsString('give a pre-shift', (string) $apart->reason);
        self::assertSame([], array_filter($apart->stations, static fn (Station $s): bool => $s->isUsed()));

        $picked = $this->compared($this->drives(self::right(...), $wrong, [-2.2, -1.3, 0.2]));
        self::assertSame(PassComparison::CORRECTED, $picked->status);
        self::assertEqualsWithDelta([-2.0, -1.5, 0.1], $picked->correction->at(506.0), 0.01);
    }

    public function testPlainWallsDetermineNothingAlongThem(): void
    {
        $c = $this->compared($this->drives(self::right(...), static fn (float $t): array => [0.1, 0.1, 0.0], hasDetail: false));

        self::assertSame(PassComparison::NEEDS_PRE_SHIFT, $c->status);
        foreach ($c->stations as $station) {
            self::assertSame(StationShift::GEOMETRY, $station->reason);
        }
    }

    #[TestWith([[300.0, 0.0, 0.0], Station::NO_REFERENCE])]
    #[TestWith([[0.0, 0.0, 40.0], Station::NO_REFERENCE])]
    public function testPassesElsewhereHaveNothingInCommon(array $off, string $reason): void
    {
        $c = $this->compared($this->drives(self::right(...), static fn (float $t): array => [$off[0], $off[1], $off[2]]));

        self::assertSame(PassComparison::NO_OVERLAP, $c->status);
        self::assertSame([$reason], array_values(array_unique(array_map(static fn (Station $s): ?string => $s->reason, $c->stations))));
    }

    public function testAStepOfOneStationIsLeftOut(): void
    {
        $wrong = static fn (float $t): array => abs($t - 505.0) < self::BETWEEN / 2.0 ? [0.3, 0.3, 0.0] : [0.0, 0.0, 0.0];
        $c = $this->compared($this->drives(self::right(...), $wrong));

        self::assertSame(PassComparison::CORRECTED, $c->status);
        self::assertSame(
            [null, null, Station::OUTLIER, null, null, null], array_map(static fn (Station $s): ?string => $s->reason, $c->stations),
        );
        self::assertEqualsWithDelta([0.0, 0.0, 0.0], $c->correction->at(505.0), 0.02);
    }

    public function testStationsWithoutPointsAreSaid(): void
    {
        $set = $this->drives(self::right(...), self::right(...));
        $pass = $set->passes[1];
        $thinned = static function () use ($pass): \Generator {
            foreach ($pass->points?->__invoke() ?? [] as [$t, $x, $y, $z]) {
                $kept = array_keys(array_filter($t, static fn (float $time): bool => $time > 503.75));
                $of = static fn (array $v): array => array_map(static fn (int $i): float => $v[$i], $kept);
                yield [$of($t), $of($x), $of($y), $of($z)];
            }
        };
        $c = $this->compared(new PassSet([$set->passes[0], new Pass('p2', $pass->trajectory, $thinned)], 0, [], 20.0, false, 1.0));

        $reasons = array_map(static fn (Station $s): ?string => $s->reason, \array_slice($c->stations, 0, 3));
        self::assertSame([Station::NO_POINTS, Station::NO_POINTS, null], $reasons);
        self::assertSame(0, $c->stations[0]->points);
    }

    /** By hand. */
    public function testACorrectionIsLinearBetweenKnotsAndConstantOutside(): void
    {
        $c = new Correction([10.0, 20.0], [[1.0, 0.0, -2.0], [2.0, 4.0, -2.0]]);

        self::assertSame([1.0, 0.0, -2.0], $c->at(3.0));
        self::assertSame([1.25, 1.0, -2.0], $c->at(12.5));
        self::assertSame([2.0, 4.0, -2.0], $c->at(20.0));
        self::assertSame([2.0, 4.0, -2.0], $c->at(99.0));
        self::assertSame([0.0, 0.0, 0.0], Correction::none()->at(1.0));
    }

    /** By hand: each is less than a second after the one before, so three share a knot. */
    public function testSightingsOfOneMomentShareAKnot(): void
    {
        $seen = static fn (float $time, float $off, bool $isControl = true, int $pass = 0): Sighting => new Sighting(
            'T', $isControl, $pass, $time, [0.0, 0.0, 0.0], [$off, 0.0, 2.0 * $off],
        );
        $knots = ControlKnots::of(0, [
            $seen(30.0, 0.9), $seen(10.0, 0.1), $seen(10.9, 0.2), $seen(11.8, 0.6), $seen(20.0, 9.0, false), $seen(5.0, 9.0, true, 1),
        ]);

        self::assertEqualsWithDelta([10.9, 30.0], $knots->correction->times, 1e-12);
        self::assertEqualsWithDelta([[0.3, 0.0, 0.6], [0.9, 0.0, 1.8]], $knots->correction->shifts, 1e-12);
        self::assertEqualsWithDelta([0.9, 0.0, 1.8], $knots->without(2)?->at(11.8), 1e-12);
        self::assertEqualsWithDelta([0.3, 0.0, 0.6], $knots->without(0)?->at(30.0), 1e-12);
        self::assertNull(ControlKnots::of(1, [$seen(5.0, 9.0, true, 1)])->without(0));
    }

    /** By hand. */
    public function testStationsLieAlongThePath(): void
    {
        // Ten metres east in ten seconds, five at rest, ten metres north and a climb.
        $t = new Trajectory([0.0, 10.0, 15.0, 20.0], [0.0, 10.0, 10.0, 10.0], [0.0, 0.0, 0.0, 10.0], [0.0, 0.0, 0.0, 4.0]);

        self::assertSame([[0.0, 0.0, 0.0, 0.0], [8.0, 8.0, 0.0, 0.0], [18.0, 10.0, 6.0, 2.4]], \array_slice($t->everyDistance(8.0), 0, 3));
        self::assertCount(5, $t->everyDistance(5.0));
        self::assertEqualsWithDelta([[0.0, 0.0, 0.0, 0.0], [12.0, 10.0, 0.0, 0.0]], $t->everyTime(12.0), 1e-12);
        self::assertSame([[1.0, 2.0, 3.0, 4.0]], (new Trajectory([1.0], [2.0], [3.0], [4.0]))->everyDistance(1.0));
        $this->expectExceptionMessage('more than 20000 stations');
        $t->everyTime(1e-9);
    }

    /** @return array{float, float, float} */
    private static function right(float $time): array
    {
        return [0.0, 0.0, 0.0];
    }

    /**
     * @param \Closure(float): array{float, float, float} $first
     * @param \Closure(float): array{float, float, float} $second
     * @param array{float, float, float}                  $preShift
     * @param list<Sighting>                              $sightings
     */
    private function drives(
        \Closure $first, \Closure $second, array $preShift = [0.0, 0.0, 0.0], bool $hasDetail = true, array $sightings = [],
    ): PassSet {
        $street = new Street(self::LENGTH, $hasDetail, 7);
        $pass = static function (string $id, float $start, \Closure $error, array $preShift = [0.0, 0.0, 0.0]) use ($street): Pass {
            ['trajectory' => $t, 'points' => $p] = $street->drive($start, $error, self::POINTS);
            $points = static fn (): array => [[array_column($p, 0), array_column($p, 1), array_column($p, 2), array_column($p, 3)]];

            $trajectory = new Trajectory(array_column($t, 0), array_column($t, 1), array_column($t, 2), array_column($t, 3));

            return new Pass($id, $trajectory, $points, $preShift);
        };

        return new PassSet([$pass('p1', 0.0, $first), $pass('p2', 500.0, $second, $preShift)], 0, $sightings, 20.0, false, 1.0);
    }

    private function compared(PassSet $set): PassComparison
    {
        return PassAlignment::of($set)->toReference[1] ?? throw new \LogicException();
    }
}
