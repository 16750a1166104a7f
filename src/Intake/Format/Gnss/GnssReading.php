<?php

declare(strict_types=1);

namespace App\Intake\Format\Gnss;

use App\Intake\Format\NoRecords;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Rinex\NavigationFile;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\Recording;
use Mensura\Exchange\RoverFeatures\RoverFeature;
use Mensura\Exchange\RoverFeatures\RoverFeatures;
use Mensura\Gnss\AntennaModel;
use Mensura\Gnss\PreciseOrbits;

/** A file of GNSS data. What a stage needs to know of it without opening it again is kept with it. */
final readonly class GnssReading implements Reading
{
    use NoRecords;

    /**
     * @param array<string, int>   $counts
     * @param array<string, mixed> $kept
     * @param list<Finding>        $findings
     */
    private function __construct(
        private FileKind $kind, private int $size, private array $counts, private array $kept, private array $findings,
    ) {
    }

    public static function ofOccupation(ObservationFile $file): self
    {
        $last = \count($file->times) - 1;
        $satellites = array_values(array_unique($file->satellite));
        sort($satellites);
        $findings = array_map(self::finding(...), $file->warnings);
        if ('' === $file->marker) {
            $findings[] = new Finding(Finding::WARNING, null, 'it names no marker; Baselines asks for it');
        }
        if (null === $file->approximate) {
            $findings[] = new Finding(Finding::WARNING, null, 'it states no approximate position');
        }
        if ([0.0, 0.0, 0.0] === $file->antennaOffset) {
            $findings[] = new Finding(Finding::WARNING, null, 'it states an antenna height of 0; set it in Baselines if that is not meant');
        }
        if ([] !== $file->otherSatellites) {
            $names = implode(', ', \array_slice(array_keys($file->otherSatellites), 0, 8));
            $findings[] = new Finding(Finding::WARNING, null, \sprintf(
                '%d satellites are of systems that are not processed: %s', \count($file->otherSatellites), $names,
            ));
        }
        $kept = [
            'marker' => $file->marker, 'from' => $file->times[0]->sinceEpoch(), 'to' => $file->times[$last]->sinceEpoch(),
            'interval' => $file->interval(), 'epochs' => $last + 1, 'satellites' => $satellites, 'version' => $file->version,
            'receiver' => $file->receiverType, 'antenna' => $file->antennaType, 'offset' => $file->antennaOffset,
            'place' => $file->statedPlace(), 'timeSystem' => $file->timeSystem, 'moves' => $file->moves,
        ];

        return new self(
            FileKind::Occupation, $last + 1, [
                'epochs' => $last + 1, 'satellites' => \count($satellites), 'observations' => \count($file->satellite),
            ],
            $kept, $findings,
        );
    }

    public static function ofNavigation(NavigationFile $file): self
    {
        $satellites = $times = $records = [];
        foreach ($file->ephemerides as $e) {
            $satellites[$e->satellite] = true;
            $records[substr(hash('sha256', $e->satellite.' '.$e->orbitTime), 0, 10)] = true;
            $times[] = $e->orbitTime->sinceEpoch();
        }

        return new self(
            FileKind::Navigation, \count($file->ephemerides),
            ['ephemerides' => \count($file->ephemerides), 'satellites' => \count($satellites)],
            [
                'from' => [] === $times ? null : min($times), 'to' => [] === $times ? null : max($times), 'records' => array_map(
                    strval(...), array_keys($records),
                ),
            ], [],
        );
    }

    public static function ofOrbits(PreciseOrbits $orbits): self
    {
        $instants = $orbits->instants();
        $count = \count($instants);

        return new self(
            FileKind::Orbits, $count, ['epochs' => $count, 'satellites' => \count($orbits->satellites())],
            ['from' => $instants[0] ?? null, 'to' => $instants[$count - 1] ?? null], [],
        );
    }

    /** @param array<string, AntennaModel> $models */
    public static function ofAntennas(array $models): self
    {
        return new self(FileKind::Antennas, \count($models), ['antennas' => \count($models)], [], []);
    }

    /** What is inside; writing it as RINEX is the next step. */
    public static function ofRecording(Recording $recording): self
    {
        $file = $recording->file;
        $count = \count($file->times);
        $findings = array_map(static fn (string $w): Finding => new Finding(Finding::WARNING, null, $w), $recording->warnings);
        $findings[] = new Finding(
            Finding::WARNING, null, 'accept it, then write it as RINEX in Baselines: that is read back, and becomes an occupation',
        );

        return new self(
            FileKind::Recording, array_sum($recording->messages),
            [
                'messages' => array_sum($recording->messages), 'epochs' => $count, 'satellites' => \count(array_unique($file->satellite)),
                'ephemerides' => \count($recording->ephemerides),
            ],
            [
                'marker' => $file->marker, 'epochs' => $count, 'ephemerides' => \count($recording->ephemerides), 'kind' => $recording->kind,
                'from' => $count > 0 ? $file->times[0]->sinceEpoch() : null,
                'to' => $count > 0 ? $file->times[$count - 1]->sinceEpoch() : null,
                'satellites' => \count(array_unique($file->satellite)),
            ], $findings,
        );
    }

    public static function ofFeatures(RoverFeatures $file): self
    {
        $times = $file->times();
        $positions = array_sum(array_map(static fn (RoverFeature $f): int => \count($f->positions), $file->features));
        $findings = '' === $file->rinex ? [] : [
            new Finding(Finding::WARNING, null, \sprintf('its observations are in %s; bring that in too', $file->rinex)),
        ];

        return new self(
            FileKind::RoverFeatures, \count($file->features), ['features' => \count($file->features), 'positions' => $positions],
            [
                'from' => $times[0]->sinceEpoch(), 'to' => $times[\count($times) - 1]->sinceEpoch(), 'rinex' => $file->rinex,
                'name' => $file->name,
                'positions' => $positions,
            ], $findings,
        );
    }

    public function kind(): FileKind
    {
        return $this->kind;
    }

    public function counts(): array
    {
        return $this->counts;
    }

    public function size(): int
    {
        return $this->size;
    }

    public function findings(): array
    {
        return $this->findings;
    }

    public function missing(): ?string
    {
        return FileKind::Navigation === $this->kind && 0 === $this->size ? 'it holds no ephemeris of GPS, Galileo or BeiDou' : null;
    }

    public function kept(): array
    {
        return $this->kept;
    }

    /** As the reader says it: "FILE line N: what". */
    private static function finding(string $warning): Finding
    {
        $has = 1 === preg_match('/ line (\d+): (.*)$/s', $warning, $m);

        return new Finding(Finding::WARNING, $has ? (int) $m[1] : null, $has ? $m[2] : $warning);
    }
}
