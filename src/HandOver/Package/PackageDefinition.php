<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\HandOver\Kept\Definition;
use App\HandOver\Kept\Given;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;

/** What is chosen for a package. */
final readonly class PackageDefinition implements Definition
{
    public const BACKGROUND = 'background';
    public const ROLES = ['control', 'adjusted', 'surveyed', 'check'];

    /**
     * @param list<int>                                             $surfaces     numbers of surfaces
     * @param list<string>                                          $roles        of points that go along
     * @param list<string>                                          $codes        of these; empty for all
     * @param list<array{file: int, layer: string, colour: string}> $layers       of drawings; a colour, or "background"
     * @param list<array{file: int, name: string}>                  $alignments
     * @param int                                                   $localization number of it; 0 for none
     * @param int                                                   $geoid        number of the extract; 0 for none
     */
    private function __construct(
        public array $surfaces, public array $roles, public array $codes, public array $layers, public array $alignments,
        public int $localization, public int $geoid,
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
        $colours = [...array_keys(LayerColour::ALL), self::BACKGROUND];
        $roles = $given->texts('roles');
        foreach (array_diff($roles, self::ROLES) as $role) {
            $given->refuse('roles', \sprintf('"%s" is no role of points; they are %s', $role, implode(', ', self::ROLES)));
        }

        return new self(
            $given->numbers('surfaces'), $roles, $given->texts('codes'),
            array_map(static fn (Given $l): array => [
                'file' => $l->whole('file', 1), 'layer' => $l->text('layer'), 'colour' => $l->oneOf('colour', $colours, ''),
            ], $given->items('layers')),
            array_map(
                static fn (Given $a): array => ['file' => $a->whole('file', 1), 'name' => $a->text('name')], $given->items('alignments'),
            ),
            $given->whole('localization'), $given->whole('geoid'),
        );
    }

    public function toArray(): array
    {
        return [
            'surfaces' => $this->surfaces, 'roles' => $this->roles, 'codes' => $this->codes, 'layers' => $this->layers,
            'alignments' => $this->alignments, 'localization' => $this->localization, 'geoid' => $this->geoid,
        ];
    }

    public function isEmpty(): bool
    {
        $lines = array_filter($this->layers, static fn (array $l): bool => self::BACKGROUND !== $l['colour']);

        return [] === $this->surfaces && [] === $this->roles && [] === $lines && [] === $this->alignments;
    }
}
