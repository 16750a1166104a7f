<?php

declare(strict_types=1);

namespace App\Checks;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

/** Keeps a comparison. A new one gets its number here, within the change: two that begin at once stay two. */
final class RecordDeviation implements Operation
{
    /** Number it is kept under; 0 until it is kept. */
    public int $number = 0;

    /** @param Outcome $outcome of the slot PREFIX with a number, or without one for a new comparison */
    public function __construct(private readonly Results $results, private readonly Outcome $outcome)
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
        $o = $this->outcome;
        $this->number = (int) substr($o->slot, \strlen(DeviationMaker::PREFIX));
        if (0 === $this->number) {
            foreach ($this->results->current($project) as $slot => $result) {
                $this->number = max($this->number, str_starts_with($slot, DeviationMaker::PREFIX) ? $result->number() : 0);
            }
            ++$this->number;
        }
        $this->results->record($project, $journal, new Outcome(
            DeviationMaker::PREFIX.$this->number, $o->kind, $o->label, $o->basis, $o->settings, $o->summary, $o->output,
        ));
    }
}
