<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;

/** Says how a waiting file is to be read: its columns and units, or what its coordinates and heights mean. */
final class UnderstandFile implements Operation
{
    private string $file = '';

    /** @param \Closure(SurveyFile): void $answer */
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly int $id,
        private readonly string $name,
        private readonly string $words,
        private readonly \Closure $answer,
    ) {
    }

    public function name(): string
    {
        return $this->name;
    }

    public function title(): string
    {
        return \sprintf($this->words, $this->file);
    }

    public function detail(): array
    {
        return ['file' => $this->file];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $file = $this->files->waiting($project, $this->id, 'is accepted; undo its acceptance in the ledger, then answer again');
        $this->file = $file->name();
        ($this->answer)($file);
    }
}
