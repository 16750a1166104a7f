<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rtcm;

use Mensura\Exchange\Rinex\Recording;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\Ephemeris;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Signal;

/**
 * Recorded streams of RTCM 10403.3: station (1005, 1006), antenna and receiver (1007, 1008, 1033), observations as multiple
 * signal messages 4 to 7 of GPS, Galileo and BeiDou, ephemerides of GPS (1019) and Galileo (1045, 1046). Other messages are
 * counted and passed over.
 *
 * A stream names no week: observations take that of the ephemerides, or the one handed in.
 */
final class RtcmReader
{
    private const SYSTEMS = [107 => 'G', 109 => 'E', 112 => 'C'];
    /** Tracking codes by place in the signal mask (tables 3.5-91, 3.5-99 and 3.5-108). */
    private const SIGNALS = [
        'G' => [
            2 => '1C', 3 => '1P', 4 => '1W', 8 => '2C', 9 => '2P', 10 => '2W', 15 => '2S', 16 => '2L', 17 => '2X', 22 => '5I',
            23 => '5Q', 24 => '5X',
            30 => '1S', 31 => '1L', 32 => '1X',
        ],
        'E' => [
            2 => '1C', 3 => '1A', 4 => '1B', 5 => '1X', 6 => '1Z', 8 => '6C', 9 => '6A', 10 => '6B', 11 => '6X', 12 => '6Z', 14 => '7I',
            15 => '7Q',
            16 => '7X', 18 => '8I', 19 => '8Q', 20 => '8X', 22 => '5I', 23 => '5Q', 24 => '5X',
        ],
        'C' => [
            2 => '2I', 3 => '2Q', 4 => '2X', 8 => '6I', 9 => '6Q', 10 => '6X', 14 => '7I', 15 => '7Q', 16 => '7X', 22 => '5D', 23 => '5P',
            24 => '5X',
        ],
    ];
    /** Metres of a millisecond of light. */
    private const MS = Signal::LIGHT / 1000.0;
    private const GALILEO_WEEK = 1024;
    private const BEIDOU_BEHIND = 14.0;

    private Recording $recording;
    private ?int $week;

    /**
     * @var list<array{string, float, array<string, array<string, float>>, array<string, array<string, int>>}> system, seconds of the
     *     week, values, loss of lock
     */
    private array $epochs = [];

    /** @var array<string, int> lock time of each signal as last said */
    private array $locks = [];

    /**
     * @param ?int $week of the first observation, where no ephemeris in the stream says it
     *
     * @throws UnusableInput when it is no such stream
     */
    public static function read(string $bytes, string $name, ?int $week = null): Recording
    {
        $self = new self();
        $self->recording = new Recording('rtcm');
        $self->week = $week;
        $frames = new Frames();
        foreach ($frames->of($bytes) as $message) {
            $self->message($message);
        }
        if ([] === $self->recording->messages) {
            throw new UnusableInput($name, 'is no RTCM 3 stream: no message in it passes its check');
        }
        if ($frames->damaged > 0) {
            $self->recording->warnings[] = \sprintf('%d message(s) are damaged and left out', $frames->damaged);
        }
        if ($frames->strange > 0) {
            $self->recording->warnings[] = \sprintf('%d bytes belong to no message', $frames->strange);
        }
        $self->assemble($name);

        return $self->recording;
    }

    private function message(string $message): void
    {
        if (\strlen($message) < 2) {
            return;
        }
        $bits = new BitReader($message);
        $number = $bits->unsigned(12);
        $this->recording->messages[$number] = ($this->recording->messages[$number] ?? 0) + 1;
        try {
            match (true) {
                1005 === $number, 1006 === $number => $this->station($bits, 1006 === $number),
                1007 === $number, 1008 === $number => $this->recording->file->antennaType = self::descriptor($bits),
                1033 === $number => $this->antennaAndReceiver($bits),
                1019 === $number => $this->gps($bits),
                1045 === $number, 1046 === $number => $this->galileo($bits, 1046 === $number),
                isset(self::SYSTEMS[intdiv($number, 10)]) && $number % 10 >= 4 && $number % 10 <= 7 => $this->observations(
                    $bits, self::SYSTEMS[intdiv($number, 10)], $number % 10,
                ),
                default => null,
            };
        } catch (\UnderflowException) {
            $this->recording->warnings[] = \sprintf('a message %d ends too early and is left out', $number);
        }
    }

    private function station(BitReader $bits, bool $hasHeight): void
    {
        $id = $bits->unsigned(12);
        $bits->skip(6 + 3 + 1);
        $x = 0.0001 * $bits->signed(38);
        $bits->skip(2);
        $y = 0.0001 * $bits->signed(38);
        $bits->skip(2);
        $z = 0.0001 * $bits->signed(38);
        $file = $this->recording->file;
        $file->approximate = [$x, $y, $z];
        $file->marker = '' === $file->marker ? \sprintf('%04d', $id) : $file->marker;
        if ($hasHeight) {
            $this->recording->warnings[] = \sprintf(
                'the antenna stands %.4f m above its marker; the position is that of the antenna reference point',
                0.0001 * $bits->unsigned(16),
            );
        }
    }

    private static function descriptor(BitReader $bits): string
    {
        $bits->skip(12);

        return trim($bits->text($bits->unsigned(8)));
    }

    private function antennaAndReceiver(BitReader $bits): void
    {
        $this->recording->file->antennaType = self::descriptor($bits);
        $bits->skip(8);
        $bits->text($bits->unsigned(8));
        $this->recording->file->receiverType = trim($bits->text($bits->unsigned(8)));
    }

    private function gps(BitReader $b): void
    {
        $prn = $b->unsigned(6);
        $week = $b->unsigned(10) + 2048; // counted modulo 1024 since 1980; the third round began in 2019
        $b->skip(4 + 2);
        $idot = $b->signed(14) * 2 ** -43 * \M_PI;
        $b->skip(8);
        $toc = $b->unsigned(16) * 16.0;
        [$af2, $af1, $af0] = [$b->signed(8) * 2 ** -55, $b->signed(16) * 2 ** -43, $b->signed(22) * 2 ** -31];
        $b->skip(10);
        $orbit = self::orbit($b, 16, 16.0);
        $delay = $b->signed(8) * 2 ** -31;
        $this->add(self::ephemeris(
            \sprintf('G%02d', $prn), $week, $toc, [$af0, $af1, $af2], $idot, $orbit, $delay, 0 === $b->unsigned(6),
        ));
    }

    private function galileo(BitReader $b, bool $isInav): void
    {
        $prn = $b->unsigned(6);
        $week = $b->unsigned(12) + self::GALILEO_WEEK;
        $b->skip(10 + 8);
        $idot = $b->signed(14) * 2 ** -43 * \M_PI;
        $toc = $b->unsigned(14) * 60.0;
        [$af2, $af1, $af0] = [$b->signed(6) * 2 ** -59, $b->signed(21) * 2 ** -46, $b->signed(31) * 2 ** -34];
        $orbit = self::orbit($b, 14, 60.0);
        $delay = $b->signed(10) * 2 ** -32;
        if ($isInav) {
            $delay = $b->signed(10) * 2 ** -32; // E1 and E5b, whose clock I/NAV carries
        }
        $this->add(self::ephemeris(
            \sprintf('E%02d', $prn), $week, $toc, [$af0, $af1, $af2], $idot, $orbit, $delay, 0 === $b->unsigned(2),
        ));
    }

    /**
     * The elements that 1019, 1045 and 1046 have in common, from the radius' sine term to the rate of the node.
     *
     * @return array{
     *     crs: float, dn: float, m0: float, cuc: float, e: float, cus: float, root: float, toe: float, cic: float, node: float,
     *     cis: float, i0: float, crc: float, omega: float, dot: float,
     * } metres, radians, seconds
     */
    private static function orbit(BitReader $b, int $toeWidth, float $toeUnit): array
    {
        $angle = static fn (): float => $b->signed(32) * 2 ** -31 * \M_PI;
        $small = static fn (): float => $b->signed(16) * 2 ** -29;

        return [
            'crs' => $b->signed(16) * 2 ** -5, 'dn' => $b->signed(16) * 2 ** -43 * \M_PI, 'm0' => $angle(), 'cuc' => $small(),
            'e' => $b->unsigned(32) * 2 ** -33, 'cus' => $small(), 'root' => $b->unsigned(32) * 2 ** -19,
            'toe' => $b->unsigned($toeWidth) * $toeUnit, 'cic' => $small(), 'node' => $angle(), 'cis' => $small(), 'i0' => $angle(),
            'crc' => $b->signed(16) * 2 ** -5, 'omega' => $angle(), 'dot' => $b->signed(24) * 2 ** -43 * \M_PI,
        ];
    }

    /**
     * @param array{float, float, float} $clock bias, drift, drift rate
     * @param array{
     *     crs: float, dn: float, m0: float, cuc: float, e: float, cus: float, root: float, toe: float, cic: float, node: float,
     *     cis: float, i0: float, crc: float, omega: float, dot: float,
     * } $o
     */
    private static function ephemeris(
        string $satellite, int $week, float $toc, array $clock, float $idot, array $o, float $delay, bool $isHealthy,
    ): Ephemeris {
        return new Ephemeris(
            $satellite, GpsTime::of($week, $toc), GpsTime::of($week, $o['toe']), ...$clock, sqrtA: $o['root'], eccentricity: $o['e'],
            inclination: $o['i0'], inclinationRate: $idot, node: $o['node'], nodeRate: $o['dot'], perigee: $o['omega'],
            meanAnomaly: $o['m0'], meanMotionDifference: $o['dn'], cuc: $o['cuc'], cus: $o['cus'], crc: $o['crc'], crs: $o['crs'],
            cic: $o['cic'], cis: $o['cis'], groupDelay: $delay, healthy: $isHealthy, secondsOfWeek: $o['toe'],
        );
    }

    /** A stream repeats what it said: one record each. */
    private function add(Ephemeris $e): void
    {
        $this->week ??= $e->orbitTime->week;
        $this->recording->ephemerides[$e->satellite.' '.$e->orbitTime] = $e;
    }

    private function observations(BitReader $b, string $system, int $kind): void
    {
        $b->skip(12);
        $seconds = 0.001 * $b->unsigned(30);
        $b->skip(1 + 3 + 7 + 2 + 2 + 1 + 3);
        $satellites = $signals = $cells = [];
        for ($k = 1; $k <= 64; ++$k) {
            if (1 === $b->unsigned(1)) {
                $satellites[] = $k;
            }
        }
        for ($k = 1; $k <= 32; ++$k) {
            if (1 === $b->unsigned(1)) {
                $signals[] = $k;
            }
        }
        foreach ($satellites as $s) {
            foreach ($signals as $g) {
                if (1 === $b->unsigned(1)) {
                    $cells[] = [$s, $g];
                }
            }
        }
        $isFull = 5 === $kind || 7 === $kind;
        $isFine = $kind >= 6;
        $rough = [];
        foreach ($satellites as $s) {
            $rough[$s] = (float) $b->unsigned(8);
        }
        foreach ($isFull ? $satellites : [] as $unused) {
            $b->skip(4);
        }
        foreach ($satellites as $s) {
            $fraction = $b->unsigned(10);
            $rough[$s] = 255.0 === $rough[$s] ? \NAN : $rough[$s] + $fraction / 1024.0;
        }
        foreach ($isFull ? $satellites : [] as $unused) {
            $b->skip(14);
        }
        $fine = $phase = $lock = $half = $strength = [];
        foreach ($cells as $c => $unused) {
            $fine[$c] = $isFine ? $b->signed(20) : $b->signed(15);
        }
        foreach ($cells as $c => $unused) {
            $phase[$c] = $isFine ? $b->signed(24) : $b->signed(22);
        }
        foreach ($cells as $c => $unused) {
            $lock[$c] = $b->unsigned($isFine ? 10 : 4);
        }
        foreach ($cells as $c => $unused) {
            $half[$c] = $b->unsigned(1);
        }
        foreach ($cells as $c => $unused) {
            $strength[$c] = $isFine ? $b->unsigned(10) / 16.0 : (float) $b->unsigned(6);
        }
        $values = $lost = [];
        foreach ($cells as $c => [$s, $g]) {
            $code = self::SIGNALS[$system][$g] ?? null;
            if (null === $code || is_nan($rough[$s])) {
                continue;
            }
            $id = \sprintf('%s%02d', $system, $s);
            $isCode = $fine[$c] !== -(1 << ($isFine ? 19 : 14));
            $isPhase = $phase[$c] !== -(1 << ($isFine ? 23 : 21));
            $frequency = Signal::frequency($system, $code[0]);
            if ($isCode) {
                $values[$id]['C'.$code] = self::MS * ($rough[$s] + $fine[$c] * 2 ** ($isFine ? -29 : -24));
            }
            if ($isPhase && null !== $frequency) {
                $values[$id]['L'.$code] = self::MS * ($rough[$s] + $phase[$c] * 2 ** ($isFine ? -31 : -29)) * $frequency / Signal::LIGHT;
                // The time since lock began falls when it was lost; half a cycle may be missing until it is resolved.
                $before = $this->locks[$id.$code] ?? null;
                $lost[$id]['L'.$code] = (null !== $before && $lock[$c] < $before ? 1 : 0) | (1 === $half[$c] ? 2 : 0);
                $this->locks[$id.$code] = $lock[$c];
            }
            if ($strength[$c] > 0.0) {
                $values[$id]['S'.$code] = $strength[$c];
            }
        }
        $this->epochs[] = [$system, $seconds + ('C' === $system ? self::BEIDOU_BEHIND : 0.0), $values, $lost];
    }

    private function assemble(string $name): void
    {
        if ([] === $this->epochs) {
            return;
        }
        if (null === $this->week) {
            throw new UnusableInput($name, 'names no week: it holds no ephemerides; say the date of its first observation (--date)');
        }
        $week = $this->week;
        $last = $this->epochs[0][1];
        foreach ($this->epochs as [, $seconds, $values, $lost]) {
            // A week ends on Saturday night, also while a stream is recorded.
            if ($seconds < $last - 0.5 * GpsTime::WEEK) {
                ++$week;
            }
            $last = $seconds;
            $this->recording->add(GpsTime::of($week, $seconds), $values, $lost);
        }
        $this->recording->finish();
    }
}
