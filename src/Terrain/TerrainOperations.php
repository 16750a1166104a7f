<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\LedgerEntryRepository;
use App\Result\Results;
use App\Store\FileStore;

/** Makes the operations of the Terrain stage. */
final class TerrainOperations
{
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly LedgerEntryRepository $entries,
        private readonly Results $results,
        private readonly FileStore $store,
    ) {
    }

    public function define(string $name, SurfaceDefinition $definition, ?int $existing = null, ?string $seen = null): DefineSurface
    {
        return new DefineSurface($this->surfaces, $this->entries, $name, $definition, $existing, $seen);
    }

    /** @param float $elevation metres */
    public function volume(int $surface, float $elevation): ComputeVolume
    {
        return new ComputeVolume($this->results, $this->store, $surface, $elevation);
    }
}
