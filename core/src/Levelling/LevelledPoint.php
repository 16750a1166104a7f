<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A point of a levelling book with its height, metres. */
final class LevelledPoint
{
    public const BENCHMARK = 'benchmark';
    public const TURNING = 'turning';
    public const INTERMEDIATE = 'intermediate';

    /** @var list<array{run: string, h: float, difference: float}> further determinations, less the one kept */
    public array $again = [];

    /** @param self::BENCHMARK|self::TURNING|self::INTERMEDIATE $role */
    public function __construct(
        public readonly string $id,
        public readonly float $h,
        public readonly bool $adjusted,
        public readonly string $role,
        public readonly ?string $run,
    ) {
    }

    /**
     * @return array{id: string, h: float, adjusted: bool, role: string, run: ?string,
     *     again: list<array{run: string, h: float, difference: float}>}
     */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'h' => $this->h, 'adjusted' => $this->adjusted, 'role' => $this->role, 'run' => $this->run,
            'again' => $this->again,
        ];
    }
}
