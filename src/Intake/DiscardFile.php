<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\SurveyFileRepository;

/** Takes a waiting file off the list; its bytes stay in the store. */
final class DiscardFile implements Operation
{
    private string $file = '';
    private string $sha256 = '';

    public function __construct(private readonly SurveyFileRepository $files, private readonly int $id)
    {
    }

    public function name(): string
    {
        return 'discard-file';
    }

    public function title(): string
    {
        return 'Discarded '.$this->file.' without accepting it';
    }

    public function detail(): array
    {
        return ['file' => $this->file, 'sha256' => $this->sha256];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $file = $this->files->waiting($project, $this->id, 'is accepted; undo its acceptance instead');
        [$this->file, $this->sha256] = [$file->name(), $file->sha256()];
        $this->files->remove($file);
    }
}
