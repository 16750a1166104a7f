<?php

declare(strict_types=1);

namespace Mensura\Reference;

/** A map projection of an ellipsoid. Angles in radians, eastings and northings in metres, both growing east and north. */
interface Projection
{
    /**
     * @return array{float, float} easting, northing
     *
     * @throws OutsideProjection where the projection has no value
     */
    public function forward(float $lat, float $lon): array;

    /**
     * @return array{float, float} latitude, longitude
     *
     * @throws OutsideProjection
     */
    public function inverse(float $easting, float $northing): array;
}
