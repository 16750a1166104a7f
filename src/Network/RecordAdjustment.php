<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Basis;
use App\Result\Outcome;
use App\Result\Results;
use Mensura\Network\AdjustmentResult;

final class RecordAdjustment implements Operation
{
    private int $run = 0;

    /** @param array<string, mixed> $settings */
    public function __construct(
        private readonly Results $results,
        private readonly AdjustmentResult $result,
        private readonly Basis $basis,
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
        $passed = ($this->result->globalTest['passed'] ?? false) ? 'test passed' : 'test failed';
        $factor = null === $this->result->varianceFactor ? 'nothing to test' : \sprintf(
            'variance factor %.2f, %s', $this->result->varianceFactor, $passed,
        );

        return \sprintf('Adjusted the network, run %d: %s', $this->run, $factor);
    }

    public function detail(): array
    {
        return [
            'settings' => $this->settings, 'redundancy' => $this->result->redundancy,
            'varianceFactor' => $this->result->varianceFactor,
        ];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->run = $this->results->nextRun($project, Adjuster::SLOT);
        $summary = (array) AdjustmentSummary::ofRun($this->result);
        $this->results->record($project, $journal, new Outcome(
            Adjuster::SLOT, Adjuster::kind(), 'Network adjustment', $this->basis, $this->settings, $summary, $this->output,
        ));
    }
}
