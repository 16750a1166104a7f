<?php

declare(strict_types=1);

namespace App\Reference\View;

/** A coordinate system found; reference is what the project is told. */
final readonly class SystemHit
{
    public function __construct(
        public string $reference,
        public string $name,
        public string $kind,
        public string $area,
        public string $why,
        public bool $deprecated,
        public bool $recent,
    ) {
    }
}
