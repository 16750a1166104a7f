<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A point before and after its base gets its right position. Metres in the project. */
final readonly class BaseMoveView
{
    public function __construct(
        public string $name,
        public string $code,
        public float $e,
        public float $n,
        public ?float $h,
        public float $newE,
        public float $newN,
        public ?float $newH,
    ) {
    }
}
