<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Demo\Gnss\Trial;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Exchange\Rinex\Sp3Reader;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;
use Mensura\Gnss\PreciseOrbits;
use PHPUnit\Framework\TestCase;

/** Baselines against the truth of an invented constellation, whose generator shares no code with the processor. */
final class BaselineTest extends TestCase
{
    private const BASE = [3901600.0, 300100.0, 5020020.0];

    public function testAShortLineIsFixedToMillimetres(): void
    {
        foreach ([11, 12, 13] as $seed) {
            $rover = self::away(600.0, 450.0, 20.0);
            $sky = new Sky($seed);
            $solution = self::solve(
                $sky, $sky->observations(new Receiver('B', self::BASE, 121, 10.0, 2e-5)),
                $sky->observations(new Receiver('R', $rover, 121, 10.0, -4e-4)),
            );
            self::assertSame(BaselineSolution::FIXED, $solution->solution, "seed $seed");
            self::assertGreaterThan(3.0, (float) $solution->ratio);
            [$e, $n, $u] = self::error($solution, $rover);
            self::assertLessThan(0.005, hypot($e, $n), "seed $seed");
            self::assertLessThan(0.010, abs($u), "seed $seed");
            self::assertLessThan(0.012, $solution->rms);
            // Never claimed better than it is.
            $q = $solution->covariance;
            self::assertLessThan(3.0 * sqrt($q[0][0] + $q[1][1] + $q[2][2]), sqrt($e * $e + $n * $n + $u * $u));
        }
    }

    public function testASlipIsFoundAndHarmsNothing(): void
    {
        $rover = self::away(-800.0, 500.0, -10.0);
        $sky = new Sky(5);
        $up = self::satellitesUp($sky, $rover);
        $solution = self::solve(
            $sky, $sky->observations(new Receiver('B', self::BASE, 121, 10.0, slips: [$up[1] => 80])),
            $sky->observations(new Receiver('R', $rover, 121, 10.0, 1e-4, slips: [$up[0] => 60])),
        );
        self::assertSame(BaselineSolution::FIXED, $solution->solution);
        self::assertGreaterThan(0, $solution->satellites[$up[0]]['slips']);
        self::assertGreaterThan(0, $solution->satellites[$up[1]]['slips']);
        [$e, $n, $u] = self::error($solution, $rover);
        self::assertLessThan(0.012, sqrt($e * $e + $n * $n + $u * $u));
    }

    /** An antenna that moves by 20 cm half way has no one place: never called fixed with a precision that hides it. */
    public function testAReceiverThatMovedIsNotDressedUp(): void
    {
        $one = self::away(500.0, 300.0, 0.0);
        $two = self::away(500.2, 300.0, -0.05);
        $sky = new Sky(8);
        $moved = static fn (int $k): array => $k < 60 ? $one : $two;
        $solution = self::solve(
            $sky, $sky->observations(new Receiver('B', self::BASE, 121, 10.0)),
            $sky->observations(new Receiver('R', $moved, 121, 10.0)),
        );
        $q = $solution->covariance;
        self::assertTrue(BaselineSolution::FIXED !== $solution->solution || sqrt($q[0][0] + $q[1][1] + $q[2][2]) > 0.05);
    }

    /** A few of the two hundred that bench/gnss-sessions.php goes through; receivers that moved among them. */
    public function testSeededSessionsAreNeverFixedWrongly(): void
    {
        $moved = 0;
        foreach ([...range(1, 8), 30, 40, 186] as $seed) {
            $t = Trial::of($seed);
            self::assertFalse($t->isWrong(), "seed $seed");
            self::assertFalse($t->isBeyond(), "seed $seed: $t->off m, sigma $t->sigma m");
            self::assertFalse($t->isDressedUp(), "seed $seed moved by $t->moved m");
            $moved += $t->moved > 0.0 ? 1 : 0;
        }
        self::assertGreaterThanOrEqual(3, $moved);
    }

    public function testAMovingRoverIsFollowedToCentimetres(): void
    {
        $sky = new Sky(31);
        $path = static fn (int $k): array => self::away(300.0 + 2.0 * $k, 200.0 + 80.0 * sin($k / 15.0), 10.0 + 0.1 * $k);
        $solution = self::solve(
            $sky, $sky->observations(new Receiver('B', self::BASE, 181, 5.0, 1e-5)),
            $sky->observations(new Receiver('R', $path, 181, 5.0, -3e-4)),
            BaselineProcessor::KINEMATIC,
        );
        self::assertSame(BaselineSolution::FIXED, $solution->solution);
        self::assertCount(181, $solution->track);
        $within = 0;
        foreach ($solution->track as $k => $t) {
            $truth = $path($k);
            $d = sqrt(array_sum(array_map(static fn (float $a, float $b): float => ($a - $b) ** 2, $t['position'], $truth)));
            $q = $t['covariance'];
            self::assertLessThan(0.06, $d, "epoch $k");
            $within += $d < 3.0 * sqrt($q[0][0] + $q[1][1] + $q[2][2]) ? 1 : 0;
        }
        self::assertGreaterThan(176, $within, 'Stated precision is honest.');
    }

    /** Between points 15 minutes apart the invented circles are met to a millimetre, and the baseline is the same. */
    public function testPreciseOrbitsReplaceBroadcastOnes(): void
    {
        $sky = new Sky(14);
        $precise = new PreciseOrbits();
        Sp3Reader::read($sky->precise(), 'a.sp3', $precise);
        $broadcast = new Orbits(NavigationReader::read($sky->navigation(), 'nav.rnx')->ephemerides);
        $both = new Orbits([], $precise);
        $time = GpsTime::of(2660, 208800.0 + 437.5);
        foreach (['G01', 'G12', 'G27'] as $satellite) {
            $a = $broadcast->received($satellite, $time, 2.2e7) ?? [0.0, 0.0, 0.0, 0.0];
            $b = $both->received($satellite, $time, 2.2e7) ?? [1.0, 1.0, 1.0, 1.0];
            for ($i = 0; $i < 3; ++$i) {
                self::assertEqualsWithDelta($a[$i], $b[$i], 0.003);
            }
            self::assertEqualsWithDelta($a[3], $b[3], 1e-12);
        }
        self::assertNull($both->received('G01', GpsTime::of(2660, 100.0), 2.2e7));
        // A polynomial says nothing beyond its table: it ends four hours after the time of the ephemerides.
        self::assertNotNull($both->received('G01', GpsTime::of(2660, 208800.0 + 14400.0), 2.2e7));
        self::assertNull($both->received('G01', GpsTime::of(2660, 208800.0 + 14401.0), 2.2e7));
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/b.sp3 line 1: is not SP3/');
        Sp3Reader::read('G01', 'b.sp3', $precise);
    }

    public function testCodesAloneGiveATrackAndItsMean(): void
    {
        $rover = self::away(3000.0, -2000.0, 100.0);
        $sky = new Sky(3);
        $types = ['G' => ['C1C']];
        $solution = self::solve(
            $sky, $sky->observations(new Receiver('B', self::BASE, 61, 10.0)),
            $sky->observations(new Receiver('R', $rover, 61, 10.0, types: $types)),
            BaselineProcessor::CODE,
        );
        self::assertSame(BaselineSolution::CODE, $solution->solution);
        self::assertCount(61, $solution->track);
        [$e, $n, $u] = self::error($solution, $rover);
        self::assertLessThan(0.4, hypot($e, $n));
        self::assertLessThan(0.8, abs($u));
    }

    public function testWhatCannotBeSolvedSaysWhy(): void
    {
        $sky = new Sky(4);
        $base = $sky->observations(new Receiver('B', self::BASE, 10, 10.0));
        $rover = $sky->observations(new Receiver('R', self::away(100.0, 0.0, 0.0), 10, 10.0));
        foreach ([
            [$base, self::later($rover), $sky->navigation(), '/no epochs in common/'],
            [$base, $rover, self::later($sky->navigation()), '/nav.rnx line 10: the week 2660 of this record does not fit its time/'],
            [$base, $rover, implode("\n", \array_slice(explode("\n", $sky->navigation()), 0, 2)), '/no usable ephemeris/'],
        ] as [$b, $r, $nav, $why]) {
            try {
                self::process($b, $r, $nav, BaselineProcessor::STATIC);
                self::fail('It was solved.');
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression($why, $e->getMessage());
            }
        }
    }

    private static function later(string $rinex): string
    {
        return strtr($rinex, ['2030 12 31' => '2030 11 30']);
    }

    /**
     * @param array{float, float, float} $rover
     *
     * @return list<string> satellites that stay up longest
     */
    private static function satellitesUp(Sky $sky, array $rover): array
    {
        $file = ObservationReader::read($sky->observations(new Receiver('X', $rover, 121, 10.0)), 'x');
        $counts = array_count_values($file->satellite);
        arsort($counts);

        return \array_slice(array_keys($counts), 0, 2);
    }

    /** @return array{float, float, float} */
    private static function away(float $east, float $north, float $up): array
    {
        return Horizon::of(self::BASE)->shifted(self::BASE, $east, $north, $up);
    }

    /**
     * @param array{float, float, float} $rover
     *
     * @return array{float, float, float} east, north, up
     */
    private static function error(BaselineSolution $solution, array $rover): array
    {
        $a = Horizon::of($rover)->axes;
        $d = [$solution->rover[0] - $rover[0], $solution->rover[1] - $rover[1], $solution->rover[2] - $rover[2]];
        $part = static fn (int $row): float => $a[3 * $row] * $d[0] + $a[3 * $row + 1] * $d[1] + $a[3 * $row + 2] * $d[2];

        return [$part(0), $part(1), $part(2)];
    }

    private static function solve(
        Sky $sky,
        string $base,
        string $rover,
        string $mode = BaselineProcessor::STATIC,
    ): BaselineSolution {
        return self::process($base, $rover, $sky->navigation(), $mode);
    }

    private static function process(string $base, string $rover, string $nav, string $mode): BaselineSolution
    {
        $navigation = NavigationReader::read($nav, 'nav.rnx');
        $session = SessionOf::of(ObservationReader::read($base, 'b.rnx'), ObservationReader::read($rover, 'r.rnx'), 'b.rnx', 'r.rnx');
        $processor = new BaselineProcessor($session, new Orbits($navigation->ephemerides), null, new Options(deg2rad(10.0)));

        return $processor->run($mode, self::BASE, true)[0];
    }
}
