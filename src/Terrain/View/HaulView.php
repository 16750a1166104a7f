<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** What a volume means in one material; cubic metres and tonnes. Positive is carried away, negative is brought in. */
final readonly class HaulView
{
    public function __construct(
        public string $material, public bool $isNative, public float $looseCut, public float $makes, public float $bankForFill,
        public float $looseOver, public float $massOver, public int $loads,
    ) {
    }
}
