<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Project\Project;
use Mensura\Network\AdjustmentResult;

final class RecordAdjustment implements Operation
{
    private int $run = 0;

    /** @param array<string, mixed> $settings */
    public function __construct(
        private readonly Results $results,
        private readonly AdjustmentResult $result,
        private readonly array $settings,
        private readonly string $output,
    ) {
    }

    public function name(): string
    {
        return 'adjust-network';
    }

    public function title(): string
    {
        $factor = null === $this->result->varianceFactor ? 'nothing to test' : \sprintf('variance factor %.2f, %s', $this->result->varianceFactor, ($this->result->globalTest['passed'] ?? false) ? 'test passed' : 'test failed');

        return \sprintf('Adjusted the network, run %d: %s', $this->run, $factor);
    }

    public function detail(): array
    {
        return ['settings' => $this->settings, 'redundancy' => $this->result->redundancy, 'varianceFactor' => $this->result->varianceFactor];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->run = 1 + (isset($this->results->current($project)[Adjuster::SLOT]) ? $this->results->current($project)[Adjuster::SLOT]['run'] : 0);
        $aside = \count(array_filter($this->result->observations, static fn (array $r): bool => 'aside' === $r['use']));
        $this->results->record($project, $journal, Adjuster::SLOT, Adjuster::kind(), 'Network adjustment', ['observations', 'control', 'reference', 'network-settings'], [], $this->settings, [
            'converged' => $this->result->converged, 'redundancy' => $this->result->redundancy, 'varianceFactor' => $this->result->varianceFactor,
            'test' => $this->result->globalTest, 'observations' => $this->result->observationCount, 'stations' => \count($this->result->stations),
            'aside' => $aside, 'flagged' => \count(array_filter($this->result->observations, static fn (array $r): bool => $r['flagged'] && 'full' === $r['use'])),
            'warnings' => $this->result->warnings,
        ], $this->output);
    }
}
