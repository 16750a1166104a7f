<?php

declare(strict_types=1);

namespace App\Baselines\Features;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

/** Keeps corrected features. */
final readonly class RecordFeatures implements Operation
{
    public function __construct(private Results $results, private Outcome $outcome)
    {
    }

    public function name(): string
    {
        return 'correct-features';
    }

    public function title(): string
    {
        $s = $this->outcome->summary;

        return \sprintf('Corrected %d of %d features of %s', $s['corrected'], $s['features'], $s['name']);
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
