<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use App\Clouds\Flight\FlightMaker;
use App\Clouds\Request\DenseRequest;

/** What dense points are made of; kept with them, so that they can be made again. Metres; null for what suits the pixels. */
final readonly class DenseSettings
{
    /** @param list<int> $flights adjusted flights or groups of images */
    public function __construct(public string $name, public array $flights, public ?float $spacing = null)
    {
    }

    public static function of(DenseRequest $r): self
    {
        return self::fromArray((array) $r);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        return new self(
            trim((string) $s['name']), array_values(array_map(intval(...), (array) $s['flights'])),
            isset($s['spacing']) ? (float) $s['spacing'] : null,
        );
    }

    /** @return list<string> */
    public function slots(): array
    {
        return array_map(static fn (int $n): string => FlightMaker::PREFIX.$n, $this->flights);
    }
}
