<?php

declare(strict_types=1);

namespace App\HandOver\Sheet;

use App\HandOver\Kept\Definition;
use App\HandOver\Kept\Given;
use App\HandOver\Package\PackageDefinition;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;

/** What a view shows, and how. */
final readonly class ViewDefinition implements Definition
{
    /**
     * @param list<string>                                                         $roles      of points that are shown
     * @param list<string>                                                         $codes      of these; empty for all
     * @param list<array{id: int, contours: bool, lines: bool}>                    $surfaces
     * @param list<array{file: int, layer: string, colour: string, width: float}>  $layers     of drawings; millimetres of paper
     * @param list<string>                                                         $screenOnly layers that do not print
     * @param float                                                                $text       height of words, millimetres of paper
     * @param string                                                               $locked     hash of what it showed; empty: it follows
     */
    private function __construct(
        public array $roles, public array $codes, public bool $names, public bool $heights, public array $surfaces, public array $layers,
        public array $screenOnly, public float $text, public string $locked,
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
        $locked = $given->text('locked', 64);
        if ('' !== $locked && 1 !== preg_match('/^[0-9a-f]{64}$/D', $locked)) {
            $given->refuse('locked', 'is a hash of what was drawn');
        }

        return new self(
            $roles, $given->texts('codes'), $given->is('names', true), $given->is('heights'),
            array_map(static fn (Given $s): array => [
                'id' => $s->whole('id', 1), 'contours' => $s->is('contours', true), 'lines' => $s->is('lines', true),
            ], $given->items('surfaces')),
            array_map(static fn (Given $l): array => [
                'file' => $l->whole('file', 1), 'layer' => $l->text('layer'),
                'colour' => $l->oneOf('colour', array_keys(LayerColour::ALL), 'grey'), 'width' => $l->number('width', 0.05, 2.0, 0.25),
            ], $given->items('layers')),
            $given->texts('screenOnly'), $given->number('text', 0.8, 10.0, 1.8), $locked,
        );
    }

    public function toArray(): array
    {
        return [
            'roles' => $this->roles, 'codes' => $this->codes, 'names' => $this->names, 'heights' => $this->heights,
            'surfaces' => $this->surfaces, 'layers' => $this->layers, 'screenOnly' => $this->screenOnly, 'text' => $this->text,
            'locked' => $this->locked,
        ];
    }

    public function locked(string $sha256): self
    {
        return self::fromArray(['locked' => $sha256] + $this->toArray());
    }
}
