<?php

declare(strict_types=1);

namespace App\Course\View;

/** A result whose inputs changed since it was computed. */
final readonly class StaleView
{
    /**
     * @param list<string> $reasons
     */
    public function __construct(
        public string $slot,
        public string $label,
        public array $reasons,
    ) {
    }
}
