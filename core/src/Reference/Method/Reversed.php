<?php

declare(strict_types=1);

namespace Mensura\Reference\Method;

use Mensura\Reference\Projection;

/**
 * A method whose formula counts westings and/or southings from its false origin, given here as eastings and northings
 * (EPSG methods 9808, 9826, 9828): the false values are subtracted, not added.
 */
final readonly class Reversed implements Projection
{
    /** @param Projection $projection the same projection with false easting and northing of zero */
    public function __construct(private Projection $projection, private float $eastOffset, private float $northOffset)
    {
    }

    public function forward(float $lat, float $lon): array
    {
        [$e, $n] = $this->projection->forward($lat, $lon);

        return [$e + $this->eastOffset, $n + $this->northOffset];
    }

    public function inverse(float $easting, float $northing): array
    {
        return $this->projection->inverse($easting - $this->eastOffset, $northing - $this->northOffset);
    }
}
