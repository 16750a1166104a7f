<?php

declare(strict_types=1);

namespace App\Reference\View;

/** One point before and after, metres. */
final readonly class MovedRow
{
    public function __construct(
        public string $name,
        public float $e,
        public float $n,
        public ?float $h,
        public float $newE,
        public float $newN,
        public ?float $newH,
        public string $known,
    ) {
    }
}
