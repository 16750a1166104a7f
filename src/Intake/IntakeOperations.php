<?php

declare(strict_types=1);

namespace App\Intake;

use App\Account\User;
use App\Api\Upload;
use App\Intake\Format\Formats;
use App\Intake\Memory\RememberedMappingRepository;
use App\Store\FileStore;
use App\Survey\FollowsFile;
use App\Survey\ObservationRepository;
use App\Survey\PointRepository;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Makes the operations of Intake. */
final class IntakeOperations
{
    /** @param iterable<FollowsFile> $followers */
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly PointRepository $points,
        private readonly ObservationRepository $observations,
        private readonly FileStore $store,
        private readonly Formats $formats,
        private readonly Placer $placer,
        private readonly RememberedMappingRepository $memories,
        #[AutowireIterator('app.follows_file')] private readonly iterable $followers,
    ) {
    }

    public function receive(string $name, string $bytes, User $author): ReceiveFile
    {
        return $this->kept($name, $this->store->put($bytes), $author);
    }

    /**
     * A file that lies somewhere, and is gone from there afterwards.
     *
     * @throws UnusableInput for a large one that is no point cloud
     */
    public function take(string $name, string $path, User $author): ReceiveFile
    {
        $hash = $this->store->take($path);
        if ($this->store->size($hash) > Upload::MOST_BYTES && FileKind::Cloud->value !== $this->formats->kindOf($hash, $name)) {
            $words = '%s is larger than 64 MB; of files that large only point clouds are read, for they go through piece by piece';
            throw new UnusableInput('/file', \sprintf($words, $name));
        }

        return $this->kept($name, $hash, $author);
    }

    private function kept(string $name, string $hash, User $author): ReceiveFile
    {
        return new ReceiveFile($this->files, $this->store, $this->formats, $name, $hash, $author->id(), $this->memories);
    }

    /** @throws UnusableInput */
    public function archive(string $name, string $path, User $author): ReceiveArchive
    {
        $files = [];
        foreach (Archive::files($path, $name) as $file => $bytes) {
            $files[] = $this->receive($file, $bytes, $author);
        }
        \assert([] !== $files);

        return new ReceiveArchive($name, $files);
    }

    /** @param array<string, string> $names */
    public function call(int $file, array $names): UnderstandFile
    {
        $call = static fn (SurveyFile $f) => $f->call($names + $f->names());

        return new UnderstandFile($this->files, $file, 'name-file', 'Said what names of %s stand for', $call);
    }

    /** @param array<mixed> $answers */
    public function map(SurveyFile $file, array $answers): UnderstandFile
    {
        [$kind, $kept] = $this->formats->understand($file, $answers);
        $read = static fn (SurveyFile $f) => $f->read($kind, $kept);

        return new UnderstandFile($this->files, $file->id(), 'map-file', 'Chose how %s is read', $read);
    }

    public function mean(int $file, Meaning $meaning): UnderstandFile
    {
        $mean = static fn (SurveyFile $f) => $f->mean($meaning->toArray());

        return new UnderstandFile($this->files, $file, 'answer-file', 'Said what the coordinates of %s mean', $mean);
    }

    public function accept(int $file, bool $leaveOutBad): AcceptFile
    {
        return new AcceptFile(
            $this->files, $this->points, $this->observations, $this->formats, $this->placer, $this->memories, $this->followers,
            $file, $leaveOutBad,
        );
    }

    public function discard(int $file): DiscardFile
    {
        return new DiscardFile($this->files, $file);
    }
}
