<?php

declare(strict_types=1);

namespace App\Export;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

final class RecordExport implements Operation
{
    public function __construct(
        private readonly Results $results,
        private readonly WrittenFile $file,
        private readonly Outcome $outcome,
    ) {
    }

    public function name(): string
    {
        return 'hand-over';
    }

    public function title(): string
    {
        return \sprintf('Wrote %s: receipt %s', $this->file->name, $this->file->holds() ? 'holds' : 'does not hold');
    }

    public function detail(): array
    {
        return [
            'file' => $this->file->name, 'sha256' => $this->file->output,
            'checks' => $this->file->summary()['checks'], 'leftOut' => $this->file->leftOut,
        ];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, $this->outcome);
    }
}
