<?php

declare(strict_types=1);

namespace Mensura\Network;

/**
 * Where the plumb line comes from that instruments are levelled on: the ellipsoid's normal, the slope of the geoid, or a
 * deflection measured for the site. Radians; xi towards north and eta towards east, astronomic less geodetic
 * (Heiskanen and Moritz 1967, section 2-21).
 */
final readonly class Deflection
{
    private function __construct(public bool $fromGeoid, public float $xi, public float $eta)
    {
    }

    /** The normal of the ellipsoid is taken for the plumb line. */
    public static function none(): self
    {
        return new self(false, 0.0, 0.0);
    }

    /** From the slope of the frame's geoid; none without a geoid. */
    public static function ofGeoid(): self
    {
        return new self(true, 0.0, 0.0);
    }

    /**
     * The same everywhere.
     *
     * @param float $xi  arc seconds
     * @param float $eta arc seconds
     */
    public static function measured(float $xi, float $eta): self
    {
        return new self(false, deg2rad($xi / 3600.0), deg2rad($eta / 3600.0));
    }

    public function isNone(): bool
    {
        return !$this->fromGeoid && 0.0 === $this->xi && 0.0 === $this->eta;
    }
}
