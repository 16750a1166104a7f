<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Grid\GeoidGrid;

/** Ellipsoidal height to height above the geoid (h - N), or back. */
final readonly class GeoidStep implements Step
{
    public function __construct(private GeoidGrid $geoid, private bool $toEllipsoid)
    {
    }

    public function apply(float $lat, float $lon, float $h): array
    {
        $n = $this->geoid->height(rad2deg($lat), rad2deg($lon));

        return [$lat, $lon, $this->toEllipsoid ? $h + $n : $h - $n];
    }
}
