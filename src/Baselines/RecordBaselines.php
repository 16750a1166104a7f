<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

/** Keeps processed baselines: all of a job in one entry. */
final readonly class RecordBaselines implements Operation
{
    /**
     * @param non-empty-list<Outcome> $outcomes
     * @param array<string, string>   $failed   those that could not be processed, and why
     */
    public function __construct(
        private Results $results, private array $outcomes, private array $failed, private ProcessingSettings $settings,
    ) {
    }

    public function name(): string
    {
        return 'process-baselines';
    }

    public function title(): string
    {
        $count = array_count_values(array_map(static fn (Outcome $o): string => (string) $o->summary['solution'], $this->outcomes));
        $words = array_map(static fn (int $n, string $s): string => "$n $s", $count, array_keys($count));
        $failed = [] === $this->failed ? '' : \sprintf('; %d could not be processed', \count($this->failed));

        return (1 === \count($this->outcomes) ? 'Processed '.lcfirst(
            $this->outcomes[0]->label,
        ) : 'Processed '.\count($this->outcomes).' baselines')
            .': '.implode(', ', $words).$failed.' ('.$this->settings->words().')';
    }

    public function detail(): array
    {
        return [
            'settings' => (array) $this->settings, 'failed' => $this->failed,
            'baselines' => array_map(static fn (Outcome $o): string => $o->label, $this->outcomes),
        ];
    }

    public function apply(Project $project, Journal $journal): void
    {
        foreach ($this->outcomes as $outcome) {
            $this->results->record($project, $journal, $outcome);
        }
    }
}
