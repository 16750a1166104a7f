<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Hand-overs to drawing programs, and what can be chosen for one. */
final readonly class CadView
{
    /**
     * @param list<CadSetView>                                                      $sets
     * @param list<array{id: int, name: string}>                                    $surfaces
     * @param list<array{role: string, points: int}>                                $roles
     * @param list<string>                                                          $codes
     * @param list<array{file: int, fileName: string, layer: string, lines: int}>   $layers
     * @param list<array{file: int, fileName: string, name: string, length: float}> $alignments
     * @param list<array{id: int, name: string}>                                    $catalogues
     * @param list<array{name: string, css: string}>                                $colours
     */
    public function __construct(
        public array $sets,
        public array $surfaces,
        public array $roles,
        public array $codes,
        public array $layers,
        public array $alignments,
        public array $catalogues,
        public array $colours,
    ) {
    }
}
