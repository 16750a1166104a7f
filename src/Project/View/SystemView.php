<?php

declare(strict_types=1);

namespace App\Project\View;

/** A coordinate reference system. */
final readonly class SystemView
{
    public function __construct(
        public string $code,
        public string $name,
    ) {
    }
}
