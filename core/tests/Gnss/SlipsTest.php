<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Gnss\Arcs;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;
use Mensura\Gnss\PhaseJumps;
use Mensura\Gnss\Session;
use Mensura\Gnss\Sights;
use PHPUnit\Framework\TestCase;

/** Cycle slips, where the rover moves too. Wavelengths are those of GPS L1 and L2 (IS-GPS-200, 3.3.1.1). */
final class SlipsTest extends TestCase
{
    private const BASE = [3715600.0, -201100.0, 5163100.0];
    private const L1 = 299792458.0 / 1575.42e6;
    private const L2 = 299792458.0 / 1227.60e6;

    /** Nine cycles of L1 and seven of L2 are as long, to 3 mm: only the wide lane tells, by two cycles (arithmetic of the wavelengths). */
    public function testALongSlipOfBothBandsInAGapIsFoundByTheWideLane(): void
    {
        self::assertEqualsWithDelta(0.0, 9 * self::L1 - 7 * self::L2, 0.004);
        [$session, $sights] = self::one(9, 7);
        self::assertSame(['G05' => 1], (new Arcs($session, $sights, 0.1))->slips);
        [$session, $sights] = self::one(0, 0);
        self::assertSame([], (new Arcs($session, $sights, 0.1))->slips);
    }

    /** One cycle of L1 and of L2 at once is below the noise of the geometry-free combination of a low satellite, not of the step. */
    public function testAStepOfTheRoverIsNoSlipAndASlipIsNoStep(): void
    {
        $uniform = self::uniform(7);
        $step = [1.31, -0.42, 0.17, 25.4];
        $direction = $elevation = $change = $row = $bands = [];
        for ($i = 0; $i < 9; ++$i) {
            $up = deg2rad(12.0 + 8.0 * $i);
            $around = deg2rad(100.0 * $i);
            $u = [cos($up) * cos($around), cos($up) * sin($around), sin($up)];
            array_push($direction, ...$u);
            $elevation[] = $up;
            foreach ([0, 1] as $band) {
                $noise = 0.004 / sin($up) * ($uniform() + $uniform());
                $bands[] = $band;
                $row[] = $i;
                $change[] = $step[3] - $u[0] * $step[0] - $u[1] * $step[1] - $u[2] * $step[2] + $noise;
            }
        }
        self::assertSame([], (new PhaseJumps($row, $bands, $change, $direction, $elevation))->found());
        $change[0] += self::L1;
        $change[1] += self::L2;
        $found = (new PhaseJumps($row, $bands, $change, $direction, $elevation))->found();
        self::assertSame([[0 => true], [0 => true]], $found);
    }

    public function testAWalkingRoverHasTheSlipsItHadAndNoMore(): void
    {
        $horizon = Horizon::of(self::BASE);
        $walk = static fn (int $k): array => $horizon->shifted(self::BASE, 60.0 + 1.4 * $k, 40.0 + 3.0 * sin($k / 9.0), -2.0);
        $sky = new Sky(5);
        $rover = $sky->observations(new Receiver('R', $walk, 150, 2.0, 1e-4, begin: 0.0));
        $file = ObservationReader::read($rover, 'r');
        $counts = array_count_values($file->satellite);
        arsort($counts);
        $which = (string) array_key_first($counts);
        $sky = new Sky(5);
        $session = SessionOf::of(
            ObservationReader::read($sky->observations(new Receiver('B', self::BASE, 150, 2.0, begin: 0.0)), 'b'),
            ObservationReader::read(
                $sky->observations(new Receiver('R', $walk, 150, 2.0, 1e-4, begin: 0.0, slips: [$which => 70])), 'r',
            ), 'b', 'r',
        );
        $orbits = new Orbits(NavigationReader::read($sky->navigation(), 'n')->ephemerides);
        $solution = (new BaselineProcessor($session, $orbits, null, new Options(deg2rad(10.0))))->run('kinematic', self::BASE, true)[0];
        self::assertSame([$which => 1], array_filter(array_map(static fn (array $s): int => $s['slips'], $solution->satellites)));
        foreach ($solution->track as $k => $t) {
            $true = $walk($k);
            [$e, $n, $u] = Horizon::of($true)->components(
                $t['position'][0] - $true[0], $t['position'][1] - $true[1], $t['position'][2] - $true[2],
            );
            self::assertLessThan(0.03, hypot($e, $n), "epoch $k");
            self::assertLessThan(0.06, abs($u), "epoch $k");
        }
    }

    /**
     * A satellite alone, at 1 Hz, with two seconds missing and the cycles added after them.
     *
     * @return array{Session, Sights}
     */
    private static function one(int $first, int $second): array
    {
        $uniform = self::uniform(3);
        $session = new Session();
        $session->wavelength = ['G' => [self::L1, self::L2]];
        $sights = (new \ReflectionClass(Sights::class))->newInstanceWithoutConstructor();
        foreach ([...range(0, 29), ...range(32, 60)] as $k => $second_) {
            $session->times[] = new GpsTime(2678, (float) $second_);
            $session->epochStart[] = $k + 1;
            $session->satellite[] = 'G05';
            $range = 120.0 + 0.3 * $second_;
            foreach ([[self::L1, $first], [self::L2, $second]] as $band => [$wave, $cycles]) {
                $session->phase[$band][] = $range + 0.003 * $uniform() + ($second_ > 30 ? $cycles * $wave : 0.0);
                $session->code[$band][] = $range + 0.3 * $uniform();
                $session->lost[$band][] = false;
            }
            $sights->elevation[] = 0.9;
            $sights->computed[] = $range;
        }

        return [$session, $sights];
    }

    /** @return \Closure(): float between -1 and 1 */
    private static function uniform(int $seed): \Closure
    {
        $random = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($seed));

        return static fn (): float => $random->getInt(-1000000, 1000000) / 1e6;
    }
}
