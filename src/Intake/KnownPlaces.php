<?php

declare(strict_types=1);

namespace App\Intake;

use App\Survey\PointRow;

/** Places the project knows, by name. Metres. */
final readonly class KnownPlaces
{
    /** @param array<string, array{?float, ?float, ?float}> $places e, n, h */
    private function __construct(private array $places)
    {
    }

    /** @param iterable<PointRow> $rows */
    public static function of(iterable $rows): self
    {
        $places = [];
        foreach ($rows as $p) {
            $places[$p->name] = [$p->e, $p->n, $p->h];
        }

        return new self($places);
    }

    public function has(string $name): bool
    {
        return isset($this->places[$name]);
    }

    /** @return array{?float, ?float, ?float} e, n, h; null where they are not known */
    public function at(string $name): array
    {
        return $this->places[$name] ?? [null, null, null];
    }

    /** @return list<string> */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->places));
    }
}
