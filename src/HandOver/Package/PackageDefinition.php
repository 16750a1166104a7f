<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use Mensura\Exchange\Package\LayerColour;
use Mensura\Fault\UnusableInput;

/** What is chosen for a package. */
final readonly class PackageDefinition
{
    public const BACKGROUND = 'background';
    private const ROLES = ['control', 'adjusted', 'surveyed', 'check'];
    private const MOST = 200;

    /**
     * @param list<int>                                                  $surfaces   numbers of surfaces
     * @param list<string>                                               $roles      of points that go along
     * @param list<string>                                               $codes      of these; empty for all
     * @param list<array{file: int, layer: string, colour: string}>      $layers     of drawings; a colour, or "background"
     * @param list<array{file: int, name: string}>                       $alignments
     * @param int                                                        $localization number of it; 0 for none
     * @param int                                                        $geoid        number of the extract; 0 for none
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
        $layers = $alignments = [];
        foreach (self::items($d, 'layers') as $i => $layer) {
            [$file, $name, $colour] = [$layer['file'] ?? null, $layer['layer'] ?? null, $layer['colour'] ?? null];
            if (!\is_int($file) || !\is_string($name)) {
                throw new UnusableInput("/layers/$i", 'is a layer of a drawing: its file and its name');
            }
            if (!\is_string($colour) || self::BACKGROUND !== $colour && !isset(LayerColour::ALL[$colour])) {
                $words = 'is one of '.implode(', ', array_keys(LayerColour::ALL)).' or background';
                throw new UnusableInput("/layers/$i/colour", $words);
            }
            $layers[] = ['file' => $file, 'layer' => $name, 'colour' => $colour];
        }
        foreach (self::items($d, 'alignments') as $i => $alignment) {
            [$file, $name] = [$alignment['file'] ?? null, $alignment['name'] ?? null];
            if (!\is_int($file) || !\is_string($name)) {
                throw new UnusableInput("/alignments/$i", 'is an alignment: its file and its name');
            }
            $alignments[] = ['file' => $file, 'name' => $name];
        }
        $roles = self::texts($d, 'roles');
        foreach (array_diff($roles, self::ROLES) as $role) {
            throw new UnusableInput('/roles', \sprintf('"%s" is no role of points; they are %s', $role, implode(', ', self::ROLES)));
        }

        return new self(
            self::numbers($d, 'surfaces'), $roles, self::texts($d, 'codes'), $layers, $alignments,
            self::number($d, 'localization'), self::number($d, 'geoid'),
        );
    }

    /** @return array<string, mixed> */
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

    /**
     * @param array<mixed> $d
     *
     * @return list<array<mixed>>
     */
    private static function items(array $d, string $key): array
    {
        return self::list($d, $key, static fn (mixed $i): bool => \is_array($i), 'entries');
    }

    /**
     * @param array<mixed> $d
     *
     * @return list<string>
     */
    private static function texts(array $d, string $key): array
    {
        return array_values(array_unique(self::list($d, $key, static fn (mixed $t): bool => \is_string($t), 'texts')));
    }

    /**
     * @param array<mixed> $d
     *
     * @return list<int>
     */
    private static function numbers(array $d, string $key): array
    {
        return array_values(array_unique(self::list($d, $key, static fn (mixed $n): bool => \is_int($n), 'numbers')));
    }

    /**
     * @param array<mixed>           $d
     * @param \Closure(mixed): bool $is
     *
     * @return list<mixed>
     */
    private static function list(array $d, string $key, \Closure $is, string $what): array
    {
        $list = $d[$key] ?? [];
        if (!\is_array($list) || \count($list) > self::MOST || \count(array_filter($list, $is)) < \count($list)) {
            throw new UnusableInput('/'.$key, \sprintf('is a list of %d %s at most', self::MOST, $what));
        }

        return array_values($list);
    }

    /** @param array<mixed> $d */
    private static function number(array $d, string $key): int
    {
        $number = $d[$key] ?? 0;

        return \is_int($number) && $number >= 0 ? $number : throw new UnusableInput('/'.$key, 'is the number of one, or 0 for none');
    }
}
