<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** The packages of the project, and what can be chosen for one. */
final readonly class PackagesView
{
    /**
     * @param list<PackageView>                                                     $packages
     * @param list<array{id: int, name: string}>                                    $surfaces
     * @param list<array{role: string, points: int}>                                $roles
     * @param list<string>                                                          $codes
     * @param list<array{file: int, fileName: string, layer: string, lines: int}>   $layers
     * @param list<array{file: int, fileName: string, name: string, length: float}> $alignments
     * @param list<array{id: int, name: string}>                                    $localizations
     * @param list<array{id: int, name: string}>                                    $geoids
     * @param list<array{name: string, css: string}>                                $colours
     */
    public function __construct(
        public array $packages,
        public array $surfaces,
        public array $roles,
        public array $codes,
        public array $layers,
        public array $alignments,
        public array $localizations,
        public array $geoids,
        public array $colours,
    ) {
    }
}
