<?php

declare(strict_types=1);

namespace App\Intake;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/** Takes a waiting file off the list; its bytes stay in the store. */
final class DiscardFile implements Operation
{
    public function __construct(private readonly SurveyFile $file)
    {
    }

    public function name(): string
    {
        return 'discard-file';
    }

    public function title(): string
    {
        return 'Discarded '.$this->file->name().' without accepting it';
    }

    public function detail(): array
    {
        return ['file' => $this->file->name(), 'sha256' => $this->file->sha256()];
    }

    public function apply(Project $project, Journal $journal): void
    {
        if (SurveyFile::WAITING !== $this->file->state()) {
            throw new UnusableInput($this->file->name(), 'is accepted; undo its acceptance instead');
        }
        $journal->delete('survey_file', $this->file->id());
    }
}
