<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Clouds\Request\FlightRequest;
use App\Reference\ReferenceContent;
use App\Survey\GivenContent;

/**
 * Which mission is adjusted, and where its images show control; kept with the result, so that it can be made again. Pixels.
 *
 * @phpstan-type Mark array{point: string, image: string, x: float, y: float}
 */
final readonly class FlightSettings
{
    /** @param list<Mark> $marks */
    public function __construct(public string $name, public int $mission, public array $marks = [])
    {
    }

    public static function of(FlightRequest $r): self
    {
        return self::fromArray((array) $r);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        return new self(trim((string) $s['name']), (int) $s['mission'], array_map(static fn (array $m): array => [
            'point' => (string) $m['point'], 'image' => (string) $m['image'], 'x' => (float) $m['x'], 'y' => (float) $m['y'],
        ], array_values((array) ($s['marks'] ?? []))));
    }

    /** @return list<string> */
    public function contents(): array
    {
        return [] === $this->marks ? [ReferenceContent::kind()] : [GivenContent::kind(), ReferenceContent::kind()];
    }
}
