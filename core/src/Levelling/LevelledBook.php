<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A levelling book worked out. */
final readonly class LevelledBook
{
    /**
     * @param array<string, list<LevelSetup>> $setups   per run, keyed "r" and its id
     * @param list<Section>                   $sections in file order
     * @param list<LevelledPoint>             $points   benchmarks, then as they were reached
     * @param list<Loop>                      $loops
     * @param list<array{run: string, from: string, to: string, value: float, length: ?float, setups: int}> $network
     * @param list<string>                    $warnings
     */
    public function __construct(
        public array $setups,
        public array $sections,
        public array $points,
        public array $loops,
        public array $network,
        public array $warnings,
    ) {
    }

    /** @return array<string, mixed> the mensura-level/1 document */
    public function toArray(): array
    {
        $network = [];
        foreach ($this->network as $line) {
            $network[] = [
                'type' => 'height-difference', 'run' => $line['run'], 'from' => $line['from'], 'to' => $line['to'],
                'value' => $line['value'],
            ]
                + (null === $line['length'] ? ['setups' => $line['setups']] : ['length' => $line['length']]);
        }

        return [
            'format' => 'mensura-level/1',
            'sections' => array_map(static fn (Section $s): array => $s->toArray(), $this->sections),
            'points' => array_map(static fn (LevelledPoint $p): array => $p->toArray(), $this->points),
            'loops' => array_map(static fn (Loop $l): array => $l->toArray(), $this->loops),
            'network' => $network,
            'warnings' => $this->warnings,
        ];
    }
}
