<?php

declare(strict_types=1);

namespace App\Baselines\Features;

use App\Baselines\MarkPlace;
use App\Baselines\Occupation;
use App\Baselines\OccupationRepository;
use App\Baselines\OrbitFiles;
use App\Baselines\Request\FeaturesRequest;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Rinex\DenserCodes;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Exchange\RoverFeatures\RoverFeatures;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\Options;

/**
 * The epochs of a mapping rover against its references: by carriers where both have them at the same instants, else by codes,
 * those of the reference brought to the rover's instants.
 *
 * @phpstan-type Epoch array{position: array{float, float, float}, covariance: list<list<float>>, solution: string}
 */
final class FeatureWork
{
    private const MASK = 10.0;

    /** A carrier solution needs so many epochs in common. */
    private const LEAST = 30;

    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly OccupationRepository $occupations,
        private readonly FileStore $store,
        private readonly OrbitFiles $orbits,
        private readonly MarkPlace $places,
    ) {
    }

    public function features(Project $project, int $id): RoverFeatures
    {
        $file = $this->files->in($project, $id);
        if (null === $file || FileKind::RoverFeatures->value !== $file->kind() || $file->isWaiting()) {
            throw new UnusableInput('/file', 'there is no such file of rover features in this project');
        }

        return RoverFeatures::read(Packed::contents($this->store->get($file->sha256()), $file->name()), $file->name());
    }

    /** @return list<Occupation> */
    public function references(Project $project, FeaturesRequest $r): array
    {
        return array_map(fn (int $id): Occupation => $this->occupations->in($project, $id)
            ?? throw new UnusableInput('/references', 'a reference is not there any more'), array_values(array_unique($r->references)));
    }

    /**
     * Where the antenna of a reference is taken to be, and where its file says it is: markers, geocentric, metres.
     *
     * @return array{array{float, float, float}, ?array{float, float, float}}
     */
    public function place(Project $project, Occupation $reference, FeaturesRequest $r): array
    {
        $header = $reference->recorded()->place;
        $place = match ($r->position) {
            'header' => $header ?? throw new UnusableInput(
                '/position', \sprintf('%s states no position; type one, or take that of a mark', $reference->file->name()),
            ),
            'mark' => $this->places->of($project, $r->mark) ?? throw new UnusableInput(
                '/mark', \sprintf('%s has no place on the earth in this project', $r->mark),
            ),
            default => null === $r->e || null === $r->n || null === $r->h
                ? throw new UnusableInput('/e', 'give easting, northing and height of the reference')
                : $this->places->geocentric($project, $r->e, $r->n, $r->h),
        };

        return [$place, $header];
    }

    /**
     * @param \Closure(string, float): void $progress
     *
     * @return array<string, Epoch> by instant; of several references the most precise
     */
    public function epochs(Project $project, RoverFeatures $features, FeaturesRequest $r, \Closure $progress): array
    {
        $rover = $this->rover($project, $features);
        [$orbits, $klobuchar] = $this->orbits->read($project, OrbitFiles::BROADCAST);
        $best = [];
        $why = [];
        $references = $this->references($project, $r);
        foreach ($references as $i => $reference) {
            $progress(\sprintf('reference %d of %d', $i + 1, \count($references)), 0.1 + 0.8 * $i / \count($references));
            $bytes = Packed::contents($this->store->get($reference->file->sha256()), $reference->file->name());
            $base = ObservationReader::read($bytes, $reference->file->name());
            [$place] = $this->place($project, $reference, $r);
            [, $east, $north] = $base->antennaOffset;
            $antenna = Horizon::of($place)->shifted($place, $east, $north, $reference->height()->vertical());
            try {
                foreach ($this->solved(
                    $base, $rover, $antenna, $reference->file->name(), $features->name, $orbits, $klobuchar,
                ) as $at => $epoch) {
                    if (!isset($best[$at]) || self::size($epoch) < self::size($best[$at])) {
                        $best[$at] = $epoch;
                    }
                }
            } catch (UnusableInput $e) {
                $why[] = $reference->file->name().': '.$e->getMessage();
            }
        }
        if ([] === $best) {
            throw new UnusableInput('', 'no position could be corrected. '.implode('; ', $why));
        }

        // From the antenna to the ground.
        return array_map(static function (array $epoch) use ($features): array {
            $epoch['position'] = Horizon::of($epoch['position'])->shifted($epoch['position'], 0.0, 0.0, -$features->antennaHeight);

            return $epoch;
        }, $best);
    }

    /**
     * @param array{float, float, float} $antenna of the reference
     * @param ?array{float, float, float, float, float, float, float, float} $klobuchar
     *
     * @return array<string, Epoch>
     */
    private function solved(
        ObservationFile $base, ObservationFile $rover, array $antenna, string $baseName, string $roverName,
        \Mensura\Gnss\Orbits $orbits, ?array $klobuchar,
    ): array {
        $options = new Options(deg2rad(self::MASK));
        $denser = DenserCodes::of($base, $rover->times);
        if ([] === $denser->times) {
            throw new UnusableInput('', 'it did not record while the rover did');
        }
        $session = SessionOf::of($denser, $rover, $baseName, $roverName);
        $track = (new BaselineProcessor($session, $orbits, $klobuchar, $options))->run(BaselineProcessor::CODE, $antenna, true)[0]->track;
        if (self::hasPhases($rover)) {
            try {
                $session = SessionOf::of($base, $rover, $baseName, $roverName);
                if (\count($session->times) >= self::LEAST) {
                    $processor = new BaselineProcessor($session, $orbits, $klobuchar, $options);
                    $track = [...$track, ...$processor->run(BaselineProcessor::KINEMATIC, $antenna, true)[0]->track];
                }
            } catch (UnusableInput) {
                // Without common carriers the codes stand.
            }
        }
        $epochs = [];
        foreach ($track as $t) {
            $epochs[self::key($t['time'])] = ['position' => $t['position'], 'covariance' => $t['covariance'], 'solution' => $t['solution']];
        }

        return $epochs;
    }

    /** To the twentieth of a second: rovers and references keep their tags within. */
    public static function key(GpsTime $time): string
    {
        return (string) round(20.0 * $time->sinceEpoch());
    }

    private static function hasPhases(ObservationFile $file): bool
    {
        return [] !== array_filter(array_merge(...array_values($file->types)), static fn (string $t): bool => 'L' === $t[0]);
    }

    /** @param Epoch $epoch */
    private static function size(array $epoch): float
    {
        return $epoch['covariance'][0][0] + $epoch['covariance'][1][1] + $epoch['covariance'][2][2];
    }

    private function rover(Project $project, RoverFeatures $features): ObservationFile
    {
        if (null !== $features->raw) {
            return $features->raw;
        }
        foreach ($this->files->of($project) as $file) {
            if (!$file->isWaiting() && self::isNamed($file, $features->rinex)) {
                return ObservationReader::read(Packed::contents($this->store->get($file->sha256()), $file->name()), $file->name());
            }
        }
        throw new UnusableInput('', \sprintf('its observations are in %s, which is not in this project; bring it in', $features->rinex));
    }

    /** Also packed, also out of a folder. */
    private static function isNamed(SurveyFile $file, string $name): bool
    {
        return FileKind::Occupation->value === $file->kind() && OccupationRepository::isFile($file->name(), $name);
    }
}
