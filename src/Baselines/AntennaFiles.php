<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Antex\AntexReader;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Gnss\AntennaModel;

/** Antenna calibrations of a project: all accepted files of them. */
final class AntennaFiles implements Content
{
    /** @var array<string, array<string, AntennaModel>> by hash of the file */
    private array $read = [];

    public function __construct(private readonly SurveyFileRepository $files, private readonly FileStore $store)
    {
    }

    public static function kind(): string
    {
        return 'antennas';
    }

    public function version(Project $project, string $which): string
    {
        return ContentVersions::hash(array_map(static fn (SurveyFile $f): string => $f->sha256(), $this->all($project)));
    }

    public function words(): string
    {
        return 'antenna calibrations';
    }

    public function origin(Project $project): array
    {
        return array_map(static fn (SurveyFile $f): string => 'antenna calibrations from '.$f->name(), $this->all($project));
    }

    /** The calibration of an antenna by its name, with its radome or without one; null where there is none. */
    public function of(Project $project, string $type): ?AntennaModel
    {
        $plain = AntexReader::plain($type);
        foreach ('' === $plain ? [] : array_reverse($this->all($project)) as $file) {
            $models = $this->read[$file->sha256()] ??= AntexReader::read(
                Packed::contents($this->store->get($file->sha256()), $file->name()), $file->name(),
            );
            $model = $models[$plain] ?? $models[$plain.' NONE'] ?? null;
            if (null !== $model) {
                return $model;
            }
        }

        return null;
    }

    /** @return list<SurveyFile> */
    private function all(Project $project): array
    {
        return array_values(array_filter(
            $this->files->of($project), static fn (SurveyFile $f): bool => !$f->isWaiting() && FileKind::Antennas->value === $f->kind(),
        ));
    }
}
