<?php

declare(strict_types=1);

namespace App\Network\View;

/** How the sight of a held target agrees: across the line, along it and in height, observed less computed; metres. */
final readonly class HeldSightView
{
    public function __construct(
        public string $target,
        public ?float $across,
        public ?float $along,
        public ?float $up,
        public bool $flagged,
    ) {
    }
}
