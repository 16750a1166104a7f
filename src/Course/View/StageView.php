<?php

declare(strict_types=1);

namespace App\Course\View;

/** One station of the course. State: empty, ready, attention, stale or done. */
final readonly class StageView
{
    public function __construct(
        public string $key,
        public string $label,
        public string $state,
        public string $caption,
    ) {
    }
}
