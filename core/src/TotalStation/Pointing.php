<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/**
 * One pointing as the instrument showed it: degrees, metres. In face 2 the circle reads half a turn more and the zenith
 * angle is counted the other way round (360 degrees less the angle from the zenith).
 */
final readonly class Pointing
{
    /**
     * @param string $round        rounds share an orientation of the circle
     * @param int    $face         1 or 2
     * @param float  $targetHeight above the mark
     * @param ?float $distance     slope distance as displayed, null when none was measured
     * @param float  $prism        constant to add to the distance
     */
    public function __construct(
        public string $round,
        public int $face,
        public string $target,
        public float $targetHeight,
        public float $direction,
        public float $zenith,
        public ?float $distance,
        public float $prism = 0.0,
    ) {
    }
}
