<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Results;

final class RecordSurface implements Operation
{
    public function __construct(
        private readonly Results $results,
        private readonly string $surfaceName,
        private readonly SurfaceSummary $summary,
        private readonly Outcome $outcome,
    ) {
    }

    public function name(): string
    {
        return 'compute-surface';
    }

    public function title(): string
    {
        $words = 'Computed surface %s: %d points, %d triangles';

        return \sprintf($words, $this->surfaceName, $this->summary->points, $this->summary->triangles);
    }

    public function detail(): array
    {
        return (array) $this->summary;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, $this->outcome);
    }
}
