<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Account\User;
use App\Baselines\View\RecordingView;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\FileIntake;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\NavigationWriter;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\ObservationWriter;
use Mensura\Exchange\Rinex\Recorded;
use Mensura\Fault\UnusableInput;

/** Files of receivers that write no exchange format: what they hold, and RINEX made of them. */
final class Recordings
{
    private const VERSION = '3.04';

    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly FileStore $store,
        private readonly FileIntake $intake,
    ) {
    }

    /** @return list<RecordingView> */
    public function of(Project $project): array
    {
        $all = $this->files->of($project);
        $names = array_map(static fn (SurveyFile $f): string => $f->name(), $all);
        $views = [];
        foreach ($all as $f) {
            if (FileKind::Recording->value !== $f->kind() || $f->isWaiting()) {
                continue;
            }
            $m = $f->mapping();
            $views[] = new RecordingView(
                $f->id(), $f->name(), (string) $m['kind'], (string) $m['marker'], (int) $m['epochs'], (int) $m['satellites'],
                (int) $m['ephemerides'],
                $m['from'], $m['to'], \in_array(self::stem($f).'.obs', $names, true),
            );
        }

        return $views;
    }

    /**
     * @return array<string, array{string, string}> name and text of observations and navigation, as far as there are some
     *
     * @throws UnusableInput
     */
    public function rinex(Project $project, int $id): array
    {
        $file = $this->files->in($project, $id);
        if (null === $file || FileKind::Recording->value !== $file->kind() || $file->isWaiting()) {
            throw new UnusableInput('', 'there is no such receiver recording in this project');
        }
        $recording = Recorded::read($this->store->get($file->sha256()), $file->name());
        $made = [];
        if ([] !== $recording->file->times) {
            $text = (new ObservationWriter())->write($recording->file, self::VERSION);
            $back = ObservationReader::read($text, self::stem($file).'.obs');
            if (\count($back->times) !== \count($recording->file->times) || \count($back->satellite) !== \count(
                $recording->file->satellite,
            )) {
                throw new \LogicException('What was written as RINEX does not come back.');
            }
            $made['observations'] = [self::stem($file).'.obs', $text];
        }
        if ([] !== $recording->ephemerides) {
            $text = NavigationWriter::write(array_values($recording->ephemerides), self::VERSION);
            if (\count(NavigationReader::read($text, $file->name())->ephemerides) !== \count($recording->ephemerides)) {
                throw new \LogicException('The ephemerides written do not come back.');
            }
            $made['navigation'] = [self::stem($file).'.nav', $text];
        }

        return [] === $made ? throw new UnusableInput($file->name(), 'holds neither observations nor ephemerides') : $made;
    }

    /** @return list<string> names of the files taken in */
    public function write(Project $project, User $author, int $id): array
    {
        $names = [];
        foreach ($this->rinex($project, $id) as [$name, $text]) {
            $this->intake->take($project, $author, $name, $text);
            $names[] = $name;
        }

        return $names;
    }

    private static function stem(SurveyFile $file): string
    {
        return pathinfo(preg_replace('/\.gz$/', '', basename($file->name())) ?? '', \PATHINFO_FILENAME);
    }
}
