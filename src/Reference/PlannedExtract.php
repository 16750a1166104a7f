<?php

declare(strict_types=1);

namespace App\Reference;

use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Operation\Route as CoordinateRoute;

/** A geoid extract about to be made. */
final readonly class PlannedExtract
{
    /** @param ?CoordinateRoute $route way to the source's datum, where the extract is on another ellipsoid */
    public function __construct(
        public GeoidExtract $plan,
        public string $name,
        public string $ellipsoid,
        public ?CoordinateRoute $route,
        public GeoidGrid $source,
    ) {
    }

    /** A transformation by a grid of latitude and longitude shifts leaves heights as they are; so then does the extract. */
    public function warning(): string
    {
        $lat = deg2rad($this->plan->south + ($this->plan->rows - 1) * $this->plan->dLat / 2.0);
        $lon = deg2rad($this->plan->west + ($this->plan->columns - 1) * $this->plan->dLon / 2.0);
        $carries = null === $this->route || abs($this->route->apply($lat, $lon, 0.0)[2]) > 1e-6;

        return $carries ? '' : 'the transformation to this ellipsoid carries no heights, so N is the same as on the global one';
    }
}
