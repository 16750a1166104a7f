<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Terrain\Request\VolumeRequest;
use Mensura\Fault\UnusableInput;

/** What a volume is computed of; kept with its result, so that it can be made again. Metres. */
final readonly class VolumeSettings
{
    public const SURFACE = 'surface';
    public const ELEVATION = 'elevation';
    /** The surface through the edge of the surface itself. */
    public const RIM = 'rim';
    public const AGAINST = [self::SURFACE, self::ELEVATION, self::RIM];

    /** @param list<array{float, float}> $boundary */
    public function __construct(
        public string $name, public int $surface, public string $against, public int $other = 0, public float $elevation = 0.0,
        public array $boundary = [], public float $slice = 1.0,
    ) {
    }

    /** @throws UnusableInput */
    public static function of(VolumeRequest $r): self
    {
        if (self::SURFACE === $r->against && $r->other === $r->surface) {
            throw new UnusableInput('/other', 'is the surface itself; choose another to compare it with');
        }
        if ([] !== $r->boundary && \count($r->boundary) < 3) {
            throw new UnusableInput('/boundary', 'needs at least three corners');
        }
        $boundary = array_values(array_map(static fn (array $v): array => [(float) $v[0], (float) $v[1]], $r->boundary));

        return new self(trim($r->name), $r->surface, $r->against, $r->other, $r->elevation, $boundary, $r->slice);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        $boundary = array_values(array_map(
            static fn (array $v): array => [(float) ($v[0] ?? 0.0), (float) ($v[1] ?? 0.0)], (array) ($s['boundary'] ?? []),
        ));

        return new self(
            (string) $s['name'], (int) $s['surface'], (string) $s['against'], (int) ($s['other'] ?? 0), (float) ($s['elevation'] ?? 0.0),
            $boundary, (float) ($s['slice'] ?? 1.0),
        );
    }

    /** @return list<string> slots it rests on */
    public function slots(): array
    {
        $slots = ['surface:'.$this->surface];

        return self::SURFACE === $this->against ? [...$slots, 'surface:'.$this->other] : $slots;
    }
}
