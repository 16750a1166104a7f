<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** One step of a transformation. Latitude and longitude in radians from Greenwich, height in metres. */
interface Step
{
    /**
     * @return array{float, float, float}
     *
     * @throws \DomainException where the step has no value
     */
    public function apply(float $lat, float $lon, float $h): array;
}
