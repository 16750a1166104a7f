<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Result\Content;
use App\Result\ContentVersions;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\Sp3Reader;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\Orbits;
use Mensura\Gnss\PreciseOrbits;

/** Broadcast ephemerides and precise orbits of a project: all accepted files of them. */
final class OrbitFiles implements Content
{
    public const BROADCAST = 'broadcast';
    public const PRECISE = 'precise';

    public function __construct(private readonly SurveyFileRepository $files, private readonly FileStore $store)
    {
    }

    public static function kind(): string
    {
        return 'orbits';
    }

    public function version(Project $project, string $which): string
    {
        // The same ephemerides from a second receiver change nothing.
        $records = $tables = [];
        foreach ($this->all($project) as $file) {
            if (FileKind::Navigation->value === $file->kind()) {
                foreach ((array) ($file->mapping()['records'] ?? [$file->sha256()]) as $record) {
                    $records[(string) $record] = true;
                }
            } else {
                $tables[] = $file->sha256();
            }
        }
        ksort($records);

        return ContentVersions::hash([array_map(strval(...), array_keys($records)), $tables]);
    }

    public function words(): string
    {
        return 'ephemerides';
    }

    public function origin(Project $project): array
    {
        return array_map(static fn (SurveyFile $f): string => 'ephemerides from '.$f->name(), $this->all($project));
    }

    public function hasPrecise(Project $project): bool
    {
        return [] !== array_filter($this->all($project), static fn (SurveyFile $f): bool => FileKind::Orbits->value === $f->kind());
    }

    public function hasBroadcast(Project $project): bool
    {
        return [] !== array_filter($this->all($project), static fn (SurveyFile $f): bool => FileKind::Navigation->value === $f->kind());
    }

    /**
     * @return array{Orbits, ?array{float, float, float, float, float, float, float, float}} and the ionosphere model that came with them
     *
     * @throws UnusableInput when there are none
     */
    public function read(Project $project, string $which): array
    {
        $ephemerides = [];
        $klobuchar = null;
        $precise = null;
        foreach ($this->all($project) as $file) {
            $bytes = Packed::contents($this->store->get($file->sha256()), $file->name());
            if (FileKind::Navigation->value === $file->kind()) {
                $read = NavigationReader::read($bytes, $file->name());
                foreach ($read->ephemerides as $e) {
                    $ephemerides[$e->satellite.' '.$e->orbitTime] ??= $e; // the file that came first goes before
                }
                $klobuchar ??= $read->klobuchar;
            } elseif (self::PRECISE === $which) {
                $precise ??= new PreciseOrbits();
                Sp3Reader::read($bytes, $file->name(), $precise);
            }
        }
        if (self::PRECISE === $which && null === $precise) {
            throw new UnusableInput(
                '/orbits', 'there is no file of precise orbits (SP3) in this project; bring one in, or choose broadcast',
            );
        }
        if ([] === $ephemerides && null === $precise) {
            throw new UnusableInput(
                '', 'there are no ephemerides yet; bring in the navigation file of one of the receivers (RINEX, type N)',
            );
        }

        return [new Orbits(array_values($ephemerides), $precise), $klobuchar];
    }

    /** @return list<SurveyFile> */
    private function all(Project $project): array
    {
        return array_values(array_filter($this->files->of($project), static fn (SurveyFile $f): bool => !$f->isWaiting()
            && \in_array($f->kind(), [FileKind::Navigation->value, FileKind::Orbits->value], true)));
    }
}
