<?php

declare(strict_types=1);

namespace App\Network\View;

/** A standardized residual without and with a suspect's correction. */
final readonly class SuspectRowView
{
    public function __construct(
        public int $id,
        public ?string $component,
        public string $kind,
        public string $at,
        public string $to,
        public float $before,
        public float $after,
    ) {
    }
}
