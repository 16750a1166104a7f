<?php

declare(strict_types=1);

namespace App\Reference\View;

/** The reference stage of a project. Extent south, west, north, east in degrees. */
final readonly class ReferenceView
{
    /**
     * @param list<float>|null                                                          $extent
     * @param list<array{id: int, name: string}>                                        $customs
     * @param list<GridFileView>                                                        $grids
     * @param list<array{id: int, name: string, system: string, pairs: int, vertical: string}> $localizations
     * @param list<array{code: int, name: string, parameters: list<array{code: int, name: string, kind: string}>}> $methods
     */
    public function __construct(
        public ?SystemDetail $system,
        public string $heights,
        public string $geoid,
        public int $points,
        public int $localPoints,
        public ?array $extent,
        public ?float $meanHeight,
        public array $customs,
        public array $grids,
        public array $localizations,
        public array $methods,
        public string $registry,
    ) {
    }
}
