<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Session;
use Mensura\Gnss\Signal;

/**
 * Brings the epochs of two observation files together, and chooses the signals that both recorded.
 *
 * Places are those of code and phase in the values of each file.
 *
 * @phpstan-type Places array{band: string, base: array{int, ?int}, rover: array{int, ?int}}
 */
final class SessionOf
{
    /** Bands of each system in the order they are preferred as second; the first is that of the broadcast clock. */
    private const BANDS = ['G' => ['1', ['2', '5']], 'E' => ['1', ['5', '7', '8', '6']], 'C' => ['2', ['7', '6', '5']]];

    /** Tracking modes as they are preferred. */
    private const MODES = 'CWPXSLQIYMNDZAB';

    /** Epochs that differ by less are one instant: receivers keep their clocks within a few milliseconds. */
    private const SAME = 0.02;

    private Session $session;

    /** @param array<string, true> $leftOut */
    private function __construct(
        private readonly ObservationFile $base, private readonly ObservationFile $rover, private readonly array $leftOut,
    ) {
        $this->session = new Session();
    }

    /**
     * @param ?GpsTime $start first instant used; null for all
     * @param ?GpsTime $end   last instant used
     * @param list<string> $leftOut         satellites not used
     * @param bool         $isFirstBandOnly the second band is passed over
     *
     * @throws UnusableInput without common epochs or signals
     */
    public static function of(
        ObservationFile $base, ObservationFile $rover, string $baseName, string $roverName, ?GpsTime $start = null, ?GpsTime $end = null,
        array $leftOut = [], bool $isFirstBandOnly = false,
    ): Session {
        $self = new self($base, $rover, array_fill_keys($leftOut, true));
        $places = [];
        foreach (self::BANDS as $system => [$first, $seconds]) {
            $one = $self->signal($system, $first);
            if (null === $one) {
                continue;
            }
            $two = null;
            foreach ($isFirstBandOnly ? [] : $seconds as $band) {
                $two ??= $self->signal($system, $band);
            }
            $places[$system] = [$one, $two];
            $light = Signal::LIGHT;
            $f = (float) Signal::frequency($system, $first);
            $g = null === $two ? null : Signal::frequency($system, $two['band']);
            $self->session->bands[$system] = [$first, null === $two ? null : $two['band']];
            $self->session->wavelength[$system] = [$light / $f, null === $g ? null : $light / $g];
        }
        if ([] === $places) {
            throw new UnusableInput("$baseName and $roverName", 'have no code of the first frequency of GPS, Galileo or BeiDou in common');
        }
        $self->epochs($places, $start, $end);
        if ([] === $self->session->times) {
            $span = static fn (ObservationFile $f): string => $f->times[0].' to '.$f->times[\count($f->times) - 1];
            throw new UnusableInput("$baseName and $roverName", \sprintf(
                'have no epochs in common%s: base %s, rover %s', null === $start && null === $end ? '' : ' within the time asked for',
                $span($base), $span($rover),
            ));
        }

        return $self->session;
    }

    /**
     * Places of code and phase of a band in both files: the same mode in both where there is one.
     *
     * @return ?Places
     */
    private function signal(string $system, string $band): ?array
    {
        $best = null;
        $least = \PHP_INT_MAX;
        foreach (str_split(self::MODES) as $i => $m) {
            $b = $this->base->place($system, "C$band$m");
            if (null === $b) {
                continue;
            }
            foreach (str_split(self::MODES) as $j => $n) {
                $r = $this->rover->place($system, "C$band$n");
                $bp = $this->base->place($system, "L$band$m");
                $rp = null === $r ? null : $this->rover->place($system, "L$band$n");
                $rank = $i + $j + ($m === $n ? 0 : 100) + (null === $bp || null === $rp ? 1000 : 0);
                if (null !== $r && $rank < $least) {
                    $least = $rank;
                    $best = [
                        'band' => $band, 'base' => [$b, $bp], 'rover' => [$r, $rp],
                    ];
                }
            }
        }

        return $best;
    }

    /** @param array<string, array{Places, ?Places}> $places */
    private function epochs(array $places, ?GpsTime $start, ?GpsTime $end): void
    {
        $s = $this->session;
        $b = 0;
        $baseCount = \count($this->base->times);
        foreach ($this->rover->times as $r => $time) {
            if (null !== $start && $time->since($start) < -1e-3 || null !== $end && $time->since($end) > 1e-3) {
                continue;
            }
            while ($b < $baseCount && $this->base->times[$b]->since($time) < -self::SAME) {
                ++$b;
            }
            if ($b >= $baseCount) {
                break;
            }
            $difference = $this->base->times[$b]->since($time);
            if ($difference > self::SAME) {
                continue;
            }
            $rows = [];
            for ($i = $this->base->epochStart[$b]; $i < $this->base->epochStart[$b + 1]; ++$i) {
                $rows[$this->base->satellite[$i]] = $this->base->valueStart[$i];
            }
            $s->times[] = $time;
            $s->tagDifference[] = $difference;
            for ($i = $this->rover->epochStart[$r]; $i < $this->rover->epochStart[$r + 1]; ++$i) {
                $satellite = $this->rover->satellite[$i];
                $at = $places[$satellite[0]] ?? null;
                if (null !== $at && isset($rows[$satellite]) && !isset($this->leftOut[$satellite])) {
                    $this->row($satellite, $at, $rows[$satellite], $this->rover->valueStart[$i]);
                }
            }
            $s->epochStart[] = \count($s->satellite);
        }
    }

    /** @param array{Places, ?Places} $at */
    private function row(string $satellite, array $at, int $base, int $rover): void
    {
        $s = $this->session;
        $bv = $this->base->value;
        $rv = $this->rover->value;
        $baseCode = $bv[$base + $at[0]['base'][0]];
        $roverCode = $rv[$rover + $at[0]['rover'][0]];
        if (is_nan($baseCode) || is_nan($roverCode)) {
            return;
        }
        $s->satellite[] = $satellite;
        $s->baseCode[] = $baseCode;
        $s->roverCode[] = $roverCode;
        foreach ([0, 1] as $k) {
            $signal = $at[$k];
            $phase = $code = \NAN;
            $lost = false;
            if (null !== $signal) {
                $code = $rv[$rover + $signal['rover'][0]] - $bv[$base + $signal['base'][0]];
                if (null !== $signal['base'][1] && null !== $signal['rover'][1]) {
                    $phase = ($rv[$rover + $signal['rover'][1]] - $bv[$base + $signal['base'][1]])
                        * (float) $s->wavelength[$satellite[0]][$k];
                    $indicator = $this->rover->lossOfLock[$rover + $signal['rover'][1]]
                        | $this->base->lossOfLock[$base + $signal['base'][1]];
                    $lost = 1 === (1 & $indicator);
                    // Bit 1 says since version 3 that half a cycle may be missing: no integer can be found with it.
                    if (2 === (2 & $indicator) && $this->rover->version >= 3.0 && $this->base->version >= 3.0 && !is_nan($phase)) {
                        $phase = \NAN;
                        ++$s->halfCycles;
                    }
                }
            }
            $s->phase[$k][] = $phase;
            $s->code[$k][] = $code;
            $s->lost[$k][] = $lost;
        }
    }
}
