<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Store\FileStore;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Orbits;

/** Solves baselines between occupations. Files are read once for all the baselines of a job. */
final class Processing
{
    /** Files kept in memory: a session of many receivers shares a few of them at a time. */
    private const KEPT = 6;

    /** @var array<int, ObservationFile> */
    private array $files = [];

    /** @var array<string, array{Orbits, ?array{float, float, float, float, float, float, float, float}}> */
    private array $orbits = [];

    public function __construct(
        private readonly FileStore $store, private readonly OrbitFiles $orbitFiles, private readonly MarkPlace $places,
        private readonly AntennaFiles $antennas,
    ) {
    }

    /**
     * @param string $mode of {@see BaselineProcessor::MODES}
     *
     * @throws UnusableInput with the reason in words
     */
    public function solve(Project $project, Occupation $base, Occupation $rover, ProcessingSettings $settings, string $mode): SolvedBaseline
    {
        $baseFile = $this->file($base);
        $roverFile = $this->file($rover);
        $session = SessionOf::of(
            $baseFile, $roverFile, $base->file->name(), $rover->file->name(),
            GpsTime::after(max($base->from(), $rover->from(), $settings->from ?? -\INF)),
            GpsTime::after(min($base->to(), $rover->to(), $settings->to ?? \INF)),
            $settings->leftOut, ProcessingSettings::FIRST_BAND === $settings->bands,
        );
        [$orbits, $klobuchar] = $this->orbits[$project->revision().$settings->orbits]
            ??= $this->orbitFiles->read($project, $settings->orbits);
        $options = $settings->options($this->antennas->of($project, $base->antenna), $this->antennas->of($project, $rover->antenna));
        $processor = new BaselineProcessor($session, $orbits, $klobuchar, $options);
        $known = $this->places->of($project, $base->marker);
        $marker = $known ?? $baseFile->statedPlace();
        [$solution, $antenna] = $processor->run(
            $mode, null === $marker ? null : self::raised($marker, $base, $baseFile, 1.0), null !== $known,
        );
        $warnings = [...$baseFile->warnings, ...$roverFile->warnings, ...$processor->warnings, ...$solution->warnings];
        if (null === $known) {
            $warnings[] = \sprintf('%s has no coordinates in the project; its file says only about where it is', $base->marker);
        }

        return new SolvedBaseline(
            $solution, $session->times, self::raised($antenna, $base, $baseFile, -1.0),
            static fn (array $place): array => self::raised($place, $rover, $roverFile, -1.0), array_values(array_unique($warnings)),
            null === $known ? 'stated by its file' : 'of the project',
        );
    }

    private function file(Occupation $occupation): ObservationFile
    {
        if (!isset($this->files[$occupation->id()])) {
            $this->files = \array_slice($this->files, -self::KEPT + 1, null, true);
            $bytes = Packed::contents($this->store->get($occupation->file->sha256()), $occupation->file->name());
            $this->files[$occupation->id()] = ObservationReader::read($bytes, $occupation->file->name());
        }

        return $this->files[$occupation->id()];
    }

    /**
     * From marker to antenna, or back.
     *
     * @param array{float, float, float} $place
     *
     * @return array{float, float, float}
     */
    private static function raised(array $place, Occupation $occupation, ObservationFile $file, float $sense): array
    {
        [, $east, $north] = $file->antennaOffset;

        return Horizon::of($place)->shifted($place, $sense * $east, $sense * $north, $sense * $occupation->height()->vertical());
    }
}
