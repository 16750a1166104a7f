<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** Depth to height and back. */
final readonly class ReverseHeightStep implements Step
{
    public function apply(float $lat, float $lon, float $h): array
    {
        return [$lat, $lon, -$h];
    }
}
