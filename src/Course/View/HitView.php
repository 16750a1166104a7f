<?php

declare(strict_types=1);

namespace App\Course\View;

/** Something found by name. */
final readonly class HitView
{
    public function __construct(
        public string $kind,
        public string $label,
        public string $detail,
        public string $stage,
        public string $key,
    ) {
    }
}
