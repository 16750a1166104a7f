<?php

declare(strict_types=1);

namespace App\HandOver\Cad;

use App\HandOver\Kept\Definition;
use App\HandOver\Kept\Given;
use App\HandOver\Package\PackageDefinition;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;

/** What of a project goes to a drawing program, and onto which layers. */
final readonly class CadDefinition implements Definition
{
    public const FORMATS = ['dxf', 'xml'];

    /**
     * @param list<string>                                                             $roles     of points
     * @param list<string>                                                             $codes     of these; empty for all
     * @param bool                                                                     $blocks    points as blocks with attributes
     * @param bool                                                                     $texts     names and heights beside them as text
     * @param list<array{id: int, contours: bool, lines: bool, faces: bool}>           $surfaces
     * @param list<array{file: int, layer: string}>                                    $layers    of drawings
     * @param list<array{file: int, name: string}>                                     $alignments
     * @param int                                                                      $catalogue colour and line type by code; 0 for none
     * @param bool                                                                     $codeLines lines and areas that codes draw, by the
     *                                                                                            catalogue
     * @param list<array{from: string, to: string, colour: string, style: string}>     $mapping   of layers
     * @param list<array{e: float, n: float}>                                          $within    corners of what points and lines are
     *                                                                                            taken in; empty for everywhere
     */
    private function __construct(
        public string $format, public array $roles, public array $codes, public bool $blocks, public bool $texts, public array $surfaces,
        public array $layers, public array $alignments, public int $catalogue, public array $mapping,
        public bool $codeLines, public array $within,
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
        $roles = $given->texts('roles');
        foreach (array_diff($roles, PackageDefinition::ROLES) as $role) {
            $given->refuse('roles', \sprintf('"%s" is no role of points; they are %s', $role, implode(', ', PackageDefinition::ROLES)));
        }

        $within = array_map(static fn (Given $c): array => [
            'e' => $c->number('e', -1e8, 1e8), 'n' => $c->number('n', -1e8, 1e8),
        ], $given->items('within'));
        if ([] !== $within && \count($within) < 3) {
            $given->refuse('within', 'is three corners or more, or empty for everywhere');
        }

        return new self(
            $given->oneOf('format', self::FORMATS, 'dxf'), $roles, $given->texts('codes'), $given->is('blocks', true), $given->is('texts'),
            array_map(static fn (Given $s): array => [
                'id' => $s->whole('id', 1), 'contours' => $s->is('contours'), 'lines' => $s->is('lines', true),
                'faces' => $s->is('faces', true),
            ], $given->items('surfaces')),
            array_map(
                static fn (Given $l): array => ['file' => $l->whole('file', 1), 'layer' => $l->text('layer')], $given->items('layers'),
            ),
            array_map(
                static fn (Given $a): array => ['file' => $a->whole('file', 1), 'name' => $a->text('name')], $given->items('alignments'),
            ),
            $given->whole('catalogue'),
            array_map(static fn (Given $m): array => [
                'from' => $m->text('from', 200), 'to' => $m->text('to', 60),
                'colour' => $m->oneOf('colour', ['', ...array_keys(LayerColour::ALL)], ''),
                'style' => $m->oneOf('style', ['', ...FeatureType::STYLES], ''),
            ], $given->items('mapping')),
            $given->is('codeLines'), $within,
        );
    }

    public function toArray(): array
    {
        return get_object_vars($this);
    }
}
