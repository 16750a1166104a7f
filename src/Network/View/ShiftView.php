<?php

declare(strict_types=1);

namespace App\Network\View;

/** How a station moved between two runs, metres. */
final readonly class ShiftView
{
    public function __construct(
        public string $name,
        public float $e,
        public float $n,
        public float $h,
    ) {
    }
}
