<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** Where satellites are, from broadcast ephemerides: of each the healthy one nearest in time. */
final class Orbits
{
    /** How far from its time an ephemeris is used, seconds. */
    private const VALID = ['G' => 7500.0, 'E' => 14400.0, 'C' => 7500.0];

    private const ROTATION = 7.2921151467e-5;

    /** @var array<string, list<Ephemeris>> */
    private array $bySatellite = [];

    /** @var array<string, Ephemeris> the one used last */
    private array $last = [];

    /** @param list<Ephemeris> $ephemerides */
    public function __construct(array $ephemerides)
    {
        foreach ($ephemerides as $e) {
            $this->bySatellite[$e->satellite][] = $e;
        }
    }

    public function has(string $satellite, GpsTime $time): bool
    {
        return null !== $this->ephemeris($satellite, $time);
    }

    /** Group delay of the first frequency against the clock of the ephemeris, seconds. */
    public function groupDelay(string $satellite, GpsTime $time): float
    {
        return $this->ephemeris($satellite, $time)->groupDelay ?? 0.0;
    }

    /**
     * The satellite when it sent what is received at an instant of true GPS time, in the frame of reception.
     *
     * @param float $range code less the receiver's clock, metres
     *
     * @return ?array{float, float, float, float} x, y, z in metres; clock ahead in seconds. Null without an ephemeris
     */
    public function received(string $satellite, GpsTime $time, float $range): ?array
    {
        $e = $this->ephemeris($satellite, $time);
        if (null === $e) {
            return null;
        }
        // What was measured is short by the satellite's own clock.
        $measured = $range / Signal::LIGHT;
        $travel = $measured + $e->at($time->plus(-$measured))[3];
        [$x, $y, $z, $clock] = $e->at($time->plus(-$travel));
        // The earth turns while the signal is on its way.
        $turn = self::ROTATION * $travel;
        $c = cos($turn);
        $s = sin($turn);

        return [$x * $c + $y * $s, $y * $c - $x * $s, $z, $clock];
    }

    private function ephemeris(string $satellite, GpsTime $time): ?Ephemeris
    {
        $valid = self::VALID[$satellite[0]] ?? 0.0;
        $last = $this->last[$satellite] ?? null;
        if (null !== $last && abs($time->since($last->orbitTime)) < 0.5 * $valid && 1 === \count($this->bySatellite[$satellite])) {
            return $last;
        }
        $best = null;
        $least = $valid;
        foreach ($this->bySatellite[$satellite] ?? [] as $e) {
            $age = abs($time->since($e->orbitTime));
            if ($e->healthy && $age <= $least) {
                $best = $e;
                $least = $age;
            }
        }
        if (null !== $best) {
            $this->last[$satellite] = $best;
        }

        return $best;
    }
}
