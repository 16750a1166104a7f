<?php

declare(strict_types=1);

namespace App\Network\View;

/** A run as it was written. */
final readonly class LevelRunView
{
    /** @param list<array{kind: string, point: string, reading: ?float, distance: ?float}> $rows */
    public function __construct(
        public int $id,
        public int $version,
        public string $name,
        public string $pattern,
        public array $rows,
    ) {
    }
}
