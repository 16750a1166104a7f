<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Earthworks\Material;

/** Puts other materials in the place of the project's. No volume has to be computed again for it. */
final class KeepMaterials implements Operation
{
    /** @param list<Material> $materials */
    public function __construct(
        private readonly MaterialListRepository $lists, private readonly array $materials, private readonly float $capacity,
    ) {
    }

    public function name(): string
    {
        return 'keep-materials';
    }

    public function title(): string
    {
        return 'Changed the materials: '.implode(', ', array_map(static fn (Material $m): string => $m->name, $this->materials));
    }

    public function detail(): array
    {
        return ['capacity' => $this->capacity, 'materials' => array_map(static fn (Material $m): array => (array) $m, $this->materials)];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $list = $this->lists->of($project);
        $list->keep($this->materials, $this->capacity);
        $this->lists->add($list);
    }
}
