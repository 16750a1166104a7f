<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * What two receivers observed at the same instants, satellite by satellite: rover less base. Flat lists; NAN where one of the
 * two has nothing. Metres; phases in metres too.
 */
final class Session
{
    /** @var list<GpsTime> of the epochs, by the rover's tags */
    public array $times = [];

    /** @var list<float> per epoch: base tag less rover tag, seconds */
    public array $tagDifference = [];

    /** @var list<int> per epoch, and one more */
    public array $epochStart = [0];

    /** @var list<string> per row */
    public array $satellite = [];

    /** @var list<float> first code of the base, for the time of travel */
    public array $baseCode = [];

    /** @var list<float> likewise of the rover */
    public array $roverCode = [];

    /** @var array{list<float>, list<float>} phases of both bands, rover less base */
    public array $phase = [[], []];

    /** @var array{list<float>, list<float>} codes likewise */
    public array $code = [[], []];

    /** @var array{list<bool>, list<bool>} whether a receiver says it lost lock since the epoch before */
    public array $lost = [[], []];

    /** @var array<string, array{float, ?float}> wavelengths of both bands by system, metres; null without a second band */
    public array $wavelength = [];

    /** Phases that may be off by half a cycle, and are not used. */
    public int $halfCycles = 0;

    /** @var array<string, array{string, ?string}> bands by system, as RINEX numbers them */
    public array $bands = [];

    public function rowCount(): int
    {
        return \count($this->satellite);
    }
}
