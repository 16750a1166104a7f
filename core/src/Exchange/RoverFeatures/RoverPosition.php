<?php

declare(strict_types=1);

namespace Mensura\Exchange\RoverFeatures;

use Mensura\Gnss\GpsTime;

/** Where a mapping rover was at an instant, by itself. Degrees, metres. */
final readonly class RoverPosition
{
    /** @param float $sd of the plan, one sigma, metres, as the rover states it */
    public function __construct(
        public GpsTime $time, public int $vertex, public float $lat, public float $lon, public float $h, public float $sd,
    ) {
    }
}
