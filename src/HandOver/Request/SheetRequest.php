<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** How a drawing sheet is laid out: millimetres from its upper left corner. */
final readonly class SheetRequest
{
    /**
     * @param bool $plain nothing but the drawing
     * @param list<array{
     *     view: int, x: float, y: float, width: float, height: float, scale: float, e: ?float, n: ?float, rotation: float,
     *     frame: string, grid: bool, coordinates: bool, north: bool, bar: bool, legend: bool,
     * }> $windows
     * @param list<array{key: string, x: float, y: float, width: float}> $tables
     * @param array{title?: string, number?: string, drawn?: string, checked?: string, date?: string, company?: string} $fields
     * @param list<array{mark: string, date: string, text: string}> $revisions
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public string $size = 'A3',
        public bool $landscape = true,
        public bool $plain = false,
        public array $windows = [],
        public array $tables = [],
        public array $fields = [],
        public array $revisions = [],
    ) {
    }
}
