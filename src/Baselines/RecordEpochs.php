<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

/** Keeps an occupation solved epoch by epoch. */
final readonly class RecordEpochs implements Operation
{
    public function __construct(private Results $results, private Outcome $outcome)
    {
    }

    public function name(): string
    {
        return 'solve-epochs';
    }

    public function title(): string
    {
        $moves = \count((array) $this->outcome->summary['moves']);
        $found = match ($moves) {
            0 => 'it stood at one place', 1 => 'it left its place once', default => "it left its place $moves times",
        };

        return \sprintf('Solved %s epoch by epoch: %s', $this->outcome->summary['mark'], $found);
    }

    public function detail(): array
    {
        return $this->outcome->summary;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, $this->outcome);
    }
}
