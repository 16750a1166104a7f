<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** Where satellites are: by precise orbits where there are some, else by broadcast, of each the healthy one nearest in time. */
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
    public function __construct(array $ephemerides, private readonly ?PreciseOrbits $precise = null)
    {
        foreach ($ephemerides as $e) {
            $this->bySatellite[$e->satellite][] = $e;
        }
    }

    public function has(string $satellite, GpsTime $time): bool
    {
        return null !== $this->at($satellite, $time);
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
        // What was measured is short by the satellite's own clock.
        $measured = $range / Signal::LIGHT;
        $about = $this->at($satellite, $time->plus(-$measured));
        if (null === $about) {
            return null;
        }
        $travel = $measured + $about[3];
        [$x, $y, $z, $clock] = $this->at($satellite, $time->plus(-$travel)) ?? $about;
        // The earth turns while the signal is on its way.
        $turn = self::ROTATION * $travel;
        $c = cos($turn);
        $s = sin($turn);

        return [$x * $c + $y * $s, $y * $c - $x * $s, $z, $clock];
    }

    /** @return ?array{float, float, float, float} x, y, z in metres; clock ahead in seconds */
    private function at(string $satellite, GpsTime $time): ?array
    {
        $precise = $this->precise?->at($satellite, $time);
        $broadcast = null === $precise || null === $precise[3] ? $this->ephemeris($satellite, $time)?->at($time) : null;
        if (null === $precise) {
            return $broadcast;
        }
        $clock = $precise[3] ?? $broadcast[3] ?? null;

        return null === $clock ? null : [$precise[0], $precise[1], $precise[2], $clock];
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
