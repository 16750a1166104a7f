<?php

declare(strict_types=1);

namespace Mensura\Tests\Gnss;

use Demo\Gnss\Receiver;
use Demo\Gnss\Sky;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\AntennaHeight;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\ChangePoints;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;
use Mensura\Gnss\Overlaps;
use Mensura\Gnss\VectorLoops;
use PHPUnit\Framework\TestCase;

/** What is made of many epochs and many baselines: receivers that left their mark, loops, repeats, overlaps. */
final class EpochsTest extends TestCase
{
    private const BASE = [3901600.0, 300100.0, 5020020.0];

    /** A tripod that slid 21 mm south-west within six minutes: static stays float, epoch by epoch both places are found. */
    public function testAReceiverThatSlidIsFoundEpochByEpoch(): void
    {
        $mark = Horizon::of(self::BASE)->shifted(self::BASE, 420.0, 380.0, -3.0);
        $sky = new Sky(41, systems: 'GE');
        $path = static function (int $k) use ($mark): array {
            $part = max(0.0, min(1.0, ($k - 90) / 12.0));

            return Horizon::of($mark)->shifted($mark, -0.016 * $part, -0.014 * $part, -0.004 * $part);
        };
        $b = $sky->observations(new Receiver('B', self::BASE, 212, 30.0, 1e-5, Receiver::EVERYTHING));
        $r = $sky->observations(new Receiver('R', $path, 212, 30.0, -1e-5, Receiver::EVERYTHING));
        $session = SessionOf::of(ObservationReader::read($b, 'b'), ObservationReader::read($r, 'r'), 'b', 'r');
        $orbits = new Orbits(NavigationReader::read($sky->navigation([208800.0, 216000.0]), 'n')->ephemerides);
        $static = (new BaselineProcessor($session, $orbits, null, new Options(deg2rad(10.0))))->run('static', self::BASE, true)[0];
        self::assertSame(BaselineSolution::FLOAT, $static->solution);
        self::assertStringContainsString('a receiver may have moved', implode(' ', $static->warnings));
        $track = (new BaselineProcessor($session, $orbits, null, new Options(deg2rad(10.0))))->run('kinematic', self::BASE, true)[0]->track;
        $times = $e = $n = $u = [];
        foreach ($track as $t) {
            $times[] = $t['time']->since($track[0]['time']);
            [$e[], $n[], $u[]] = Horizon::of($mark)->components(
                $t['position'][0] - $mark[0], $t['position'][1] - $mark[1], $t['position'][2] - $mark[2],
            );
        }
        $found = new ChangePoints($times, $e, $n, $u);
        self::assertCount(2, $found->stands);
        self::assertCount(1, $found->moves);
        $move = $found->moves[0];
        self::assertEqualsWithDelta(90 * 30.0, $move->from, 150.0, 'It left after 45 minutes.');
        self::assertEqualsWithDelta(102 * 30.0, $move->to, 150.0);
        self::assertEqualsWithDelta(0.0213, hypot($move->shift[0], $move->shift[1]), 0.003);
        self::assertGreaterThan(0.999, $move->confidence);
        self::assertLessThan(0.006, hypot($found->stands[0]->mean[0], $found->stands[0]->mean[1]));
        // Trimmed to its first place it is fixed on the mark.
        $kept = SessionOf::of(
            ObservationReader::read($b, 'b'), ObservationReader::read($r, 'r'), 'b', 'r', null,
            $track[0]['time']->plus($found->stands[0]->to),
        );
        $again = (new BaselineProcessor($kept, $orbits, null, new Options(deg2rad(10.0))))->run('static', self::BASE, true)[0];
        self::assertSame(BaselineSolution::FIXED, $again->solution);
        self::assertLessThan(0.008, Horizon::distance($again->rover, $mark));
    }

    /** White and correlated noise alone is no movement; false alarms in fewer than one of fifty. */
    public function testNoiseIsNoMovement(): void
    {
        $dice = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(5));
        $alarms = 0;
        for ($run = 0; $run < 50; ++$run) {
            $series = [[], [], []];
            $state = [0.0, 0.0, 0.0];
            $rho = 0 === $run % 2 ? 0.0 : 0.6;
            for ($k = 0; $k < 240; ++$k) {
                foreach ([0.003, 0.003, 0.007] as $c => $sd) {
                    $sum = -6.0;
                    for ($i = 0; $i < 12; ++$i) {
                        $sum += $dice->getInt(0, 1_000_000) / 1e6;
                    }
                    $state[$c] = $rho * $state[$c] + sqrt(1.0 - $rho * $rho) * $sd * $sum;
                    $series[$c][] = $state[$c];
                }
            }
            $times = array_map(static fn (int $k): float => 15.0 * $k, range(0, 239));
            $alarms += [] === (new ChangePoints($times, ...$series))->moves ? 0 : 1;
        }
        self::assertLessThanOrEqual(1, $alarms);
    }

    public function testLoopsCloseAndRepeatsAgreeWithinWhatIsAllowed(): void
    {
        $a = ['A' => [0.0, 0.0, 0.0], 'B' => [1000.0, 0.0, 0.0], 'C' => [1000.0, 800.0, 100.0], 'D' => [0.0, 900.0, 50.0]];
        $vector = static fn (string $from, string $to, string $session, float $more = 0.0): array => [
            'from' => $from, 'to' => $to, 'session' => $session,
            'vector' => [$a[$to][0] - $a[$from][0] + $more, $a[$to][1] - $a[$from][1], $a[$to][2] - $a[$from][2]],
        ];
        $found = new VectorLoops([
            $vector('A', 'B', 'S1'), $vector('B', 'C', 'S1'), $vector('C', 'A', 'S2', 0.004), $vector('C', 'D', 'S2'),
            $vector('A', 'D', 'S3', 0.031), $vector('B', 'A', 'S4', 0.002),
        ], Horizon::of(self::BASE), 0.010, 1.0);
        self::assertCount(2, $found->loops);
        $worst = $found->loops[0];
        // C to A to D and back to C: 4 mm and 31 mm add up.
        self::assertEqualsWithDelta(0.035, $worst->size(), 1e-9);
        self::assertEqualsWithDelta(0.010 + 1e-6 * $worst->length, $worst->allowed, 1e-12);
        self::assertGreaterThan($worst->allowed, $worst->size());
        self::assertTrue($worst->isIndependent());
        self::assertContains(round(1000.0 * $found->loops[1]->size(), 6), [2.0, 4.0], 'By either of the two from A to B.');
        self::assertSame(['A', 'B', 'C'], self::sorted($found->loops[1]->marks));
        self::assertCount(1, $found->repeats);
        self::assertEqualsWithDelta(0.002, $found->repeats[0]->size(), 1e-9);
        self::assertSame(['S1', 'S4'], $found->repeats[0]->sessions);
    }

    /** Of n receivers that recorded together n - 1 baselines are independent (common practice). */
    public function testOverlapsProposeIndependentBaselines(): void
    {
        $at = static fn (float $x): array => [3901600.0 + $x, 300100.0, 5020020.0];
        $found = new Overlaps([
            ['name' => 'A', 'from' => 0.0, 'to' => 9000.0, 'place' => $at(0.0)], [
                'name' => 'B', 'from' => 0.0, 'to' => 3600.0, 'place' => $at(500.0),
            ],
            ['name' => 'C', 'from' => 100.0, 'to' => 3700.0, 'place' => $at(900.0)],
            [
                'name' => 'D', 'from' => 4000.0, 'to' => 8000.0, 'place' => $at(300.0),
            ], ['name' => 'E', 'from' => 7950.0, 'to' => 9000.0, 'place' => null],
        ]);
        self::assertSame(3, $found->sessions);
        $chosen = array_values(array_filter($found->pairs, static fn (array $p): bool => $p['independent']));
        self::assertSame([[0, 1], [1, 2], [0, 3], [0, 4]], array_map(static fn (array $p): array => [$p['a'], $p['b']], $chosen));
        self::assertCount(5, $found->pairs, 'D and E have fifty seconds in common, too little.');
        self::assertEqualsWithDelta(3500.0, $found->pairs[2]['to'] - $found->pairs[2]['from'], 1e-9);
    }

    /** Pythagoras: 1.5 m to the edge of a plate 0.9 m wide is 1.431 m upright. */
    public function testASlantHeightIsReduced(): void
    {
        self::assertEqualsWithDelta(sqrt(1.5 ** 2 - 0.45 ** 2), (new AntennaHeight('slant', 1.5, 0.45))->vertical(), 1e-12);
        self::assertEqualsWithDelta(1.46, (new AntennaHeight('vertical', 1.5, 0.0, 0.04))->vertical(), 1e-12);
        self::assertStringContainsString('1.4309 m to the reference point', (new AntennaHeight('slant', 1.5, 0.45))->words());
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessageMatches('/longer than the radius/');
        new AntennaHeight('slant', 0.2, 0.45);
    }

    /**
     * @param list<string> $names
     *
     * @return list<string>
     */
    private static function sorted(array $names): array
    {
        sort($names);

        return $names;
    }
}
