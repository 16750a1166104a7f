<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Terrain\Request\SectionRequest;
use Mensura\Fault\UnusableInput;

/** What a section is cut of; kept with its result, so that it can be cut again. Metres. */
final readonly class SectionSettings
{
    /**
     * @param list<int>                 $surfaces
     * @param list<array{float, float}> $line     empty for an alignment
     */
    public function __construct(
        public string $name, public array $surfaces, public array $line = [], public int $file = 0, public string $alignment = '',
        public float $offset = 0.0, public float $every = 0.0, public float $half = 10.0,
    ) {
    }

    /** @throws UnusableInput */
    public static function of(SectionRequest $r): self
    {
        if (0 === $r->file && \count($r->line) < 2) {
            throw new UnusableInput('/line', 'needs two places at least; draw it, or choose an alignment');
        }
        $line = array_values(array_map(static fn (array $v): array => [(float) $v[0], (float) $v[1]], $r->line));
        $surfaces = array_values(array_unique(array_map(intval(...), $r->surfaces)));

        return new self(
            trim($r->name), $surfaces, 0 === $r->file ? $line : [], $r->file, $r->alignment, $r->offset, $r->every, $r->half,
        );
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        $line = array_values(array_map(
            static fn (array $v): array => [(float) ($v[0] ?? 0.0), (float) ($v[1] ?? 0.0)], (array) ($s['line'] ?? []),
        ));

        return new self(
            (string) $s['name'], array_values(array_map(intval(...), (array) $s['surfaces'])), $line, (int) ($s['file'] ?? 0),
            (string) ($s['alignment'] ?? ''), (float) ($s['offset'] ?? 0.0), (float) ($s['every'] ?? 0.0), (float) ($s['half'] ?? 10.0),
        );
    }

    /** @return list<string> slots it rests on */
    public function slots(): array
    {
        return array_map(static fn (int $s): string => 'surface:'.$s, $this->surfaces);
    }
}
