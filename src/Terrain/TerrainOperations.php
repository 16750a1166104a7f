<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Ledger\LedgerEntryRepository;

/** Makes the operations of the Terrain stage. */
final class TerrainOperations
{
    public function __construct(
        private readonly SurfaceRepository $surfaces,
        private readonly LedgerEntryRepository $entries,
    ) {
    }

    public function define(string $name, SurfaceDefinition $definition, ?int $existing = null, ?string $seen = null): DefineSurface
    {
        return new DefineSurface($this->surfaces, $this->entries, $name, $definition, $existing, $seen);
    }
}
