<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** What pointings are reduced with. */
final readonly class ReductionSettings
{
    /**
     * @param float  $refraction            coefficient: curvature of the sight over curvature of the earth
     * @param float  $earthRadius           metres
     * @param float  $wavelength            of the distance meter, micrometres
     * @param ?float $referenceRefractivity the one at which the distance meter shows true lengths, parts per million
     */
    public function __construct(
        public float $refraction = 0.13,
        public float $earthRadius = 6371000.0,
        public float $wavelength = 0.658,
        public ?float $referenceRefractivity = null,
    ) {
    }

    /** Parts per million to add to a distance measured in this air. */
    public function ppm(?Weather $weather): float
    {
        return null === $weather || null === $this->referenceRefractivity ? 0.0
            : $this->referenceRefractivity - $weather->refractivity($this->wavelength);
    }
}
