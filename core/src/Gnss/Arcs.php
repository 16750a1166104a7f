<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Stretches of a satellite's phase without a cycle slip, for each band.
 *
 * A slip is a loss of lock the receiver says, a gap, a jump of the geometry-free combination, a jump of the wide lane less the
 * narrow lane of the codes against its mean so far (Melbourne and Wübbena; Blewitt 1990, GRL 17(3), equations 3 to 6, from
 * memory), or a jump of the difference of phase in time: against the median of the other satellites, in which the receivers'
 * clocks drop out; where the rover moves, against the step that all of them say it took ({@see PhaseJumps}).
 */
final class Arcs
{
    /** Metres the geometry-free combination changes by the ionosphere alone between epochs at most. */
    private const GEOMETRY_FREE = 0.035;

    /** Metres a phase difference in time may stand off the others. */
    private const JUMP = 0.07;

    /** Wide lanes are cycles; so many of them, and so many standard deviations of their own, may one stand off their mean. */
    private const WIDE_LANE = 1.5;
    private const WIDE_LANE_SIGMAS = 5.0;
    private const WIDE_LANE_LEAST = 10;

    /** Seconds without an observation after which nothing says that lock was kept. */
    private const GAP = 95.0;

    /** Epochs an arc must have to be used. */
    private const SHORTEST = 5;

    /** @var array{list<int>, list<int>} arc of each row in each band, -1 without a phase */
    public array $of = [[], []];

    /** @var list<array{satellite: string, band: int, first: int, last: int, count: int}> epochs between which each lies */
    public array $arcs = [];

    /** @var array<string, int> slips by satellite */
    public array $slips = [];

    /** @param bool $moves the rover moves: its phases do not change as ranges to one place do */
    public function __construct(Session $session, Sights $sights, float $mask, bool $moves = false)
    {
        $rows = $session->rowCount();
        $this->of = [array_fill(0, $rows, -1), array_fill(0, $rows, -1)];
        $last = [];
        foreach ($session->times as $k => $time) {
            $jumps = $moves ? self::steps($session, $sights, $k, $last) : $this->jumps($session, $sights, $k, $last);
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                $satellite = $session->satellite[$i];
                if ($sights->elevation[$i] < $mask || is_nan($sights->computed[$i])) {
                    continue;
                }
                $before = $last[$satellite] ?? null;
                $isGap = null !== $before && $time->since($session->times[$before['epoch']]) > self::GAP;
                $free = $session->phase[0][$i] - $session->phase[1][$i];
                $isFree = null !== $before
                    && !is_nan($free)
                    && !is_nan($before['free'])
                    // Those near the horizon are noisier; a cycle of theirs is found by the difference in time.
                    && abs($free - $before['free']) > self::GEOMETRY_FREE * max(1.0, 0.5 / max(1e-3, sin($sights->elevation[$i])));
                $lane = self::wideLane($session, $i);
                $lanes = $before['lanes'] ?? [0, 0.0, 0.0];
                $isFree = $isFree || self::isOffLane($lane, $lanes);
                $slipped = false;
                foreach ([0, 1] as $band) {
                    if (is_nan($session->phase[$band][$i])) {
                        continue;
                    }
                    $arc = $before['arc'][$band] ?? -1;
                    $isSlip = $session->lost[$band][$i] || $isFree || $isGap || isset($jumps[$band][$i]);
                    if ($arc < 0 || $isSlip) {
                        $slipped = $slipped || $arc >= 0 && !$isGap;
                        $arc = \count($this->arcs);
                        $this->arcs[] = ['satellite' => $satellite, 'band' => $band, 'first' => $k, 'last' => $k, 'count' => 0];
                    }
                    $this->of[$band][$i] = $arc;
                    if (isset($this->arcs[$arc])) {
                        $this->arcs[$arc]['last'] = $k;
                        ++$this->arcs[$arc]['count'];
                    }
                }
                if ($slipped) {
                    $this->slips[$satellite] = ($this->slips[$satellite] ?? 0) + 1;
                }
                $last[$satellite] = [
                    'epoch' => $k, 'row' => $i, 'free' => $free, 'lanes' => self::laned($slipped || $isGap ? [0, 0.0, 0.0] : $lanes, $lane),
                    'arc' => [
                        $this->of[0][$i] >= 0 ? $this->of[0][$i] : $before['arc'][0] ?? -1,
                        $this->of[1][$i] >= 0 ? $this->of[1][$i] : $before['arc'][1] ?? -1,
                    ],
                ];
            }
        }
    }

    /** @return array<int, true> arcs of too few epochs to be used */
    public function tooShort(): array
    {
        return array_fill_keys(array_keys(array_filter($this->arcs, static fn (array $a): bool => $a['count'] < self::SHORTEST)), true);
    }

    /**
     * @param array<int, true> $leftOut arcs not used
     *
     * @return array<string, array{epochs: int, slips: int, used: bool}> by satellite
     */
    public function tally(array $leftOut): array
    {
        $tally = [];
        foreach ($this->arcs as $a => $arc) {
            $s = $tally[$arc['satellite']] ?? ['epochs' => 0, 'slips' => $this->slips[$arc['satellite']] ?? 0, 'used' => false];
            $s['epochs'] += 0 === $arc['band'] ? $arc['count'] : 0;
            $s['used'] = $s['used'] || !isset($leftOut[$a]);
            $tally[$arc['satellite']] = $s;
        }
        ksort($tally);

        return $tally;
    }

    /**
     * Rows whose phase changed otherwise than the median of its band and system since the satellite's last epoch.
     *
     * @param array<string, array{epoch: int, row: int, free: float, lanes: array{int, float, float}, arc: array{int, int}}> $last
     *
     * @return array<int, array<int, true>> by band and row
     */
    private function jumps(Session $session, Sights $sights, int $k, array $last): array
    {
        $found = [];
        foreach ([0, 1] as $band) {
            $changes = [];
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                $before = $last[$session->satellite[$i]] ?? null;
                if (null === $before || $before['epoch'] !== $k - 1) {
                    continue;
                }
                $change = $session->phase[$band][$i] - $sights->computed[$i]
                    - $session->phase[$band][$before['row']] + $sights->computed[$before['row']];
                if (!is_nan($change)) {
                    $changes[$session->satellite[$i][0]][$i] = $change;
                }
            }
            foreach ($changes as $list) {
                if (\count($list) < 3) {
                    continue;
                }
                $sorted = array_values($list);
                sort($sorted);
                $middle = $sorted[intdiv(\count($sorted), 2)];
                foreach ($list as $i => $change) {
                    if (abs($change - $middle) > self::JUMP) {
                        $found[$band][$i] = true;
                    }
                }
            }
        }

        return $found;
    }

    /**
     * As {@see jumps()} of a rover that moves.
     *
     * @param array<string, array{epoch: int, row: int, free: float, lanes: array{int, float, float}, arc: array{int, int}}> $last
     *
     * @return array<int, array<int, true>> by band and row
     */
    private static function steps(Session $session, Sights $sights, int $k, array $last): array
    {
        $bands = $change = $rows = [];
        foreach ([0, 1] as $band) {
            for ($i = $session->epochStart[$k]; $i < $session->epochStart[$k + 1]; ++$i) {
                $before = $last[$session->satellite[$i]] ?? null;
                if (null === $before || $before['epoch'] !== $k - 1 || $session->lost[$band][$i]) {
                    continue;
                }
                $value = $session->phase[$band][$i] - $sights->computed[$i]
                    - $session->phase[$band][$before['row']] + $sights->computed[$before['row']];
                if (!is_nan($value)) {
                    $bands[] = $band;
                    $change[] = $value;
                    $rows[] = $i;
                }
            }
        }

        return (new PhaseJumps($rows, $bands, $change, $sights->direction, $sights->elevation))->found();
    }

    /** Wide lane of the phases less narrow lane of the codes, in wide-lane cycles; NAN without both bands. */
    private static function wideLane(Session $session, int $row): float
    {
        [$one, $two] = $session->wavelength[$session->satellite[$row][0]] ?? [null, null];
        if (null === $one || null === $two) {
            return \NAN;
        }
        $codes = ($session->code[0][$row] / $one + $session->code[1][$row] / $two) / (1.0 / $one + 1.0 / $two);

        return $session->phase[0][$row] / $one - $session->phase[1][$row] / $two - $codes * (1.0 / $one - 1.0 / $two);
    }

    /** @param array{int, float, float} $lanes count, mean and sum of squares off the mean */
    private static function isOffLane(float $lane, array $lanes): bool
    {
        [$count, $mean, $squares] = $lanes;
        if (is_nan($lane) || $count < self::WIDE_LANE_LEAST) {
            return false;
        }

        return abs($lane - $mean) > max(self::WIDE_LANE, self::WIDE_LANE_SIGMAS * sqrt($squares / ($count - 1)));
    }

    /**
     * With one more (Welford's recurrence).
     *
     * @param array{int, float, float} $lanes
     *
     * @return array{int, float, float}
     */
    private static function laned(array $lanes, float $lane): array
    {
        if (is_nan($lane)) {
            return $lanes;
        }
        [$count, $mean, $squares] = $lanes;
        $off = $lane - $mean;
        $mean += $off / ++$count;

        return [$count, $mean, $squares + $off * ($lane - $mean)];
    }
}
