<?php

declare(strict_types=1);

namespace App\Checks;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

/** Keeps a comparison. */
final readonly class RecordDeviation implements Operation
{
    public function __construct(private Results $results, private Outcome $outcome)
    {
    }

    public function name(): string
    {
        return 'compare';
    }

    public function title(): string
    {
        $s = $this->outcome->summary;
        $mean = null === $s['mean'] ? '' : \sprintf(', mean %+.1f mm, rms %.1f mm', 1000.0 * $s['mean'], 1000.0 * $s['rms']);

        return \sprintf('Compared %s with %s: %d of %d points%s', $s['name'], $s['against'], $s['used'], $s['measured'], $mean);
    }

    public function detail(): array
    {
        return $this->outcome->settings + $this->outcome->summary;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, $this->outcome);
    }
}
