<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Network\AcceptCoordinates;
use App\Project\Project;

final class RecordSurface implements Operation
{
    /** @param array<string, mixed> $summary */
    public function __construct(private readonly Results $results, private readonly int $surface, private readonly string $surfaceName, private readonly array $summary, private readonly string $mesh)
    {
    }

    public function name(): string
    {
        return 'compute-surface';
    }

    public function title(): string
    {
        return \sprintf('Computed surface %s: %d points, %d triangles', $this->surfaceName, $this->summary['points'], $this->summary['triangles']);
    }

    public function detail(): array
    {
        return $this->summary;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->results->record($project, $journal, 'surface:'.$this->surface, SurfaceMaker::kind(), 'Surface '.$this->surfaceName, ['points', 'surface:'.$this->surface], [AcceptCoordinates::SLOT], [], $this->summary, $this->mesh);
    }
}
