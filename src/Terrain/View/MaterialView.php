<?php

declare(strict_types=1);

namespace App\Terrain\View;

/** A material; density in tonnes a cubic metre in the bank. */
final readonly class MaterialView
{
    public function __construct(
        public string $name, public bool $isNative, public float $swell, public float $shrink, public float $density,
    ) {
    }
}
