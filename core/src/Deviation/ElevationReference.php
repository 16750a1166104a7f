<?php

declare(strict_types=1);

namespace Mensura\Deviation;

/** A level plane; its normal is the vertical. */
final readonly class ElevationReference implements Reference
{
    /** @param float $elevation metres */
    public function __construct(private float $elevation)
    {
    }

    public function deviations(array $x, array $y, array $z, Along $along, ?\Closure $progress = null): array
    {
        return array_map(fn (float $h): float => $h - $this->elevation, $z);
    }

    public function steepest(): ?float
    {
        return null;
    }
}
