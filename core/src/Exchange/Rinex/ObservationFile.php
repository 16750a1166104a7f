<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\GpsTime;

/** What a RINEX observation file holds: its header, and the values of every epoch in flat lists. */
final class ObservationFile
{
    public string $marker = '';

    /** It was carried or driven: its type of marker says so, or an event in the file. */
    public bool $moves = false;

    /** RINEX version, as 3.04. */
    public float $version = 0.0;

    public string $receiverType = '';

    public string $antennaType = '';

    /** @var ?array{float, float, float} geocentric, metres, as the header states it */
    public ?array $approximate = null;

    /** @var array{float, float, float} antenna reference point above, east and north of the marker, metres */
    public array $antennaOffset = [0.0, 0.0, 0.0];

    /** GPS, GAL, BDT (brought to GPS time) as stated. */
    public string $timeSystem = 'GPS';

    /** @var array<string, list<string>> codes of the observation types in their order, by system */
    public array $types = [];

    /** @var list<GpsTime> of the epochs */
    public array $times = [];

    /** @var list<int> per epoch, and one more: where its satellites begin */
    public array $epochStart = [0];

    /** @var list<string> per row, as G05 */
    public array $satellite = [];

    /** @var list<int> per row: where its values begin; as many as its system has types */
    public array $valueStart = [];

    /** @var list<float> NAN where nothing was observed; metres, cycles, hertz, dB-Hz */
    public array $value = [];

    /** @var list<int> loss of lock indicator of each value, 0 to 7 */
    public array $lossOfLock = [];

    /** @var array<string, true> satellites whose system is not processed, seen in the file */
    public array $otherSatellites = [];

    /** @var list<string> */
    public array $warnings = [];

    /** @return ?array{float, float, float} the stated approximate position; null where it is no place on the earth */
    public function statedPlace(): ?array
    {
        $p = $this->approximate;
        $radius = null === $p ? 0.0 : sqrt($p[0] ** 2 + $p[1] ** 2 + $p[2] ** 2);

        return $radius > 6.3e6 && $radius < 6.5e6 ? $p : null;
    }

    /** Seconds between epochs as most of them lie; null with a single epoch. */
    public function interval(): ?float
    {
        $steps = [];
        foreach ($this->times as $k => $time) {
            if ($k > 0) {
                $step = (string) round($time->since($this->times[$k - 1]), 2);
                $steps[$step] = ($steps[$step] ?? 0) + 1;
            }
        }
        arsort($steps);
        $most = array_key_first($steps);

        return null === $most ? null : (float) $most;
    }

    /** Place of the type in the values of a system's rows; null when it is not observed. */
    public function place(string $system, string $type): ?int
    {
        $place = array_search($type, $this->types[$system] ?? [], true);

        return false === $place ? null : $place;
    }
}
