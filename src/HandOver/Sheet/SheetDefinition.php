<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\HandOver\Kept\Definition;
use App\HandOver\Kept\Given;
use Mensura\Fault\UnusableInput;
use Mensura\Plot\PaperSize;

/**
 * How a sheet is laid out. Millimetres from its upper left corner; ground in metres.
 *
 * @phpstan-type Window array{
 *     view: int, x: float, y: float, width: float, height: float, scale: float, e: ?float, n: ?float, rotation: float, frame: string,
 *     grid: bool, coordinates: bool, north: bool, bar: bool, legend: bool,
 * }
 */
final readonly class SheetDefinition implements Definition
{
    public const FRAMES = ['print', 'screen', 'none'];
    private const WIDEST = 2000.0;

    /**
     * @param bool                                                       $plain     nothing but the drawing
     * @param list<Window>                                               $windows   e, n: in the middle; null for that of what is shown
     * @param list<array{key: string, x: float, y: float, width: float}> $tables
     * @param array{title: string, number: string, drawn: string, checked: string, date: string, company: string} $fields
     * @param list<array{mark: string, date: string, text: string}>      $revisions
     */
    private function __construct(
        public string $size, public bool $landscape, public bool $plain, public array $windows, public array $tables, public array $fields,
        public array $revisions,
    ) {
    }

    /**
     * @param array<mixed> $d
     *
     * @throws UnusableInput naming the field
     */
    public static function fromArray(array $d): self
    {
        $given = new Given($d);
        $fields = new Given((array) ($d['fields'] ?? []), '/fields');
        $text = static fn (string $key): string => $fields->text($key, 'company' === $key ? 400 : 120);

        return new self(
            $given->oneOf('size', PaperSize::names(), 'A3'), $given->is('landscape', true), $given->is('plain'),
            array_map(self::window(...), $given->items('windows')),
            array_map(static fn (Given $t): array => [
                'key' => $t->text('key', 40), 'x' => $t->number('x', 0.0, self::WIDEST), 'y' => $t->number('y', 0.0, self::WIDEST),
                'width' => $t->number('width', 20.0, self::WIDEST, 90.0),
            ], $given->items('tables')),
            [
                'title' => $text('title'), 'number' => $text('number'), 'drawn' => $text('drawn'), 'checked' => $text('checked'),
                'date' => $text('date'), 'company' => $text('company'),
            ],
            array_map(static fn (Given $r): array => [
                'mark' => $r->text('mark', 10), 'date' => $r->text('date', 20), 'text' => $r->text('text', 120),
            ], $given->items('revisions')),
        );
    }

    /** @return Window */
    private static function window(Given $w): array
    {
        return [
            'view' => $w->whole('view', 1), 'x' => $w->number('x', 0.0, self::WIDEST), 'y' => $w->number('y', 0.0, self::WIDEST),
            'width' => $w->number('width', 10.0, self::WIDEST, 100.0), 'height' => $w->number('height', 10.0, self::WIDEST, 100.0),
            'scale' => $w->number('scale', 1.0, 1e7, 500.0), 'e' => $w->numberOrNull('e', -1e8, 1e8),
            'n' => $w->numberOrNull('n', -1e8, 1e8),
            'rotation' => $w->number('rotation', -360.0, 360.0), 'frame' => $w->oneOf('frame', self::FRAMES, 'print'),
            'grid' => $w->is('grid', true), 'coordinates' => $w->is('coordinates', true), 'north' => $w->is('north', true),
            'bar' => $w->is('bar', true), 'legend' => $w->is('legend', true),
        ];
    }

    public function toArray(): array
    {
        return [
            'size' => $this->size, 'landscape' => $this->landscape, 'plain' => $this->plain, 'windows' => $this->windows,
            'tables' => $this->tables, 'fields' => $this->fields, 'revisions' => $this->revisions,
        ];
    }
}
