<?php

declare(strict_types=1);

namespace App\HandOver\View;

/** A drawing sheet as it is laid out; millimetres from its upper left corner. */
final readonly class SheetView
{
    /**
     * @param list<array{
     *     view: int, x: float, y: float, width: float, height: float, scale: float, e: ?float, n: ?float, rotation: float,
     *     frame: string, grid: bool, coordinates: bool, north: bool, bar: bool, legend: bool,
     * }> $windows
     * @param list<array{key: string, x: float, y: float, width: float}>                                          $tables
     * @param array{title: string, number: string, drawn: string, checked: string, date: string, company: string} $fields
     * @param list<array{mark: string, date: string, text: string}>                                               $revisions
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public string $size,
        public bool $landscape,
        public bool $plain,
        public array $windows,
        public array $tables,
        public array $fields,
        public array $revisions,
    ) {
    }
}
