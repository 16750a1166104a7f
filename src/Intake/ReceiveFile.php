<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Format\Formats;
use App\Intake\Memory\RememberedMappingRepository;
use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;

/** Puts a file that has arrived on the list; it waits there until it is accepted. */
final class ReceiveFile implements Operation
{
    private readonly string $kind;
    private readonly string $shape;
    private readonly int $size;

    /** The system it says it is in. */
    private readonly ?string $frame;

    private ?SurveyFile $file = null;

    public function __construct(
        private readonly SurveyFileRepository $files,
        FileStore $store,
        Formats $formats,
        private readonly string $fileName,
        public readonly string $sha256,
        private readonly int $author,
        private readonly RememberedMappingRepository $memories,
    ) {
        $this->kind = $formats->kindOf($sha256, $fileName);
        $this->shape = $formats->shape($sha256, $fileName);
        $this->frame = $formats->frameOf($sha256, $fileName);
        $this->size = $store->size($sha256);
    }

    public function name(): string
    {
        return 'receive-file';
    }

    public function title(): string
    {
        return 'Received '.$this->fileName;
    }

    public function detail(): array
    {
        return ['file' => $this->fileName, 'sha256' => $this->sha256, 'size' => $this->size];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $author = $this->files->member($this->author);
        $this->file = new SurveyFile($project, $this->fileName, $this->sha256, $this->size, $this->kind, $author, $journal->at);
        $memory = '' === $this->shape ? null : $this->memories->recall($project, $author, $this->shape);
        if (null !== $memory) {
            $this->file->read($memory->kind, ['memory' => $memory->id()] + $memory->mapping);
        }
        if (null !== $this->frame && $this->frame !== $project->reference()) {
            $this->file->mean((new Meaning($this->frame))->toArray());
        }
        $this->files->add($this->file);
    }

    /** Database id of the file. */
    public function id(): int
    {
        return (int) $this->file?->id();
    }
}
