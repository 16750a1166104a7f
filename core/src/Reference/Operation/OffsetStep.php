<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** Constant offsets of latitude, longitude (radians) and height (metres). */
final readonly class OffsetStep implements Step
{
    public function __construct(private float $lat, private float $lon, private float $h)
    {
    }

    public function apply(float $lat, float $lon, float $h): array
    {
        return [$lat + $this->lat, $lon + $this->lon, $h + $this->h];
    }
}
