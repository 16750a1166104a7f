<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** Sheets and views of the project, what was drawn of them, and what can be chosen. */
final readonly class SheetsView
{
    /**
     * @param list<SheetView>                                                     $sheets
     * @param list<SavedViewView>                                                 $views
     * @param list<ExportView>                                                    $files  the newest of each set that was drawn
     * @param list<array{name: string, width: float, height: float}>              $sizes  upright, millimetres
     * @param list<array{key: string, title: string}>                             $tables
     * @param list<array{id: int, name: string}>                                  $surfaces
     * @param list<array{role: string, points: int}>                              $roles
     * @param list<string>                                                        $codes
     * @param list<array{file: int, fileName: string, layer: string, lines: int}> $layers
     * @param list<array{name: string, css: string}>                              $colours
     */
    public function __construct(
        public array $sheets,
        public array $views,
        public array $files,
        public array $sizes,
        public array $tables,
        public array $surfaces,
        public array $roles,
        public array $codes,
        public array $layers,
        public array $colours,
    ) {
    }
}
