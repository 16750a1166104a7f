<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Broadcast elements of one satellite: GPS, Galileo and BeiDou in medium orbit.
 *
 * Position and clock after IS-GPS-200, tables 20-IV and 30-I, and the Galileo and BeiDou interface documents, which differ in
 * GM and the rotation of the earth only. Seconds, metres, radians; times in GPS time.
 */
final readonly class Ephemeris
{
    /** GM of the earth, m^3/s^2, and its rotation, rad/s, as each system defines them. */
    private const GM = ['G' => 3.986005e14, 'E' => 3.986004418e14, 'C' => 3.986004418e14];
    private const ROTATION = ['G' => 7.2921151467e-5, 'E' => 7.2921151467e-5, 'C' => 7.292115e-5];

    /** Relativistic clock correction, s/sqrt(m): -2 sqrt(GM)/c^2. */
    private const RELATIVITY = -4.442807633e-10;

    public function __construct(
        public string $satellite,
        public GpsTime $clockTime,
        public GpsTime $orbitTime,
        public float $clockBias,
        public float $clockDrift,
        public float $clockDriftRate,
        public float $sqrtA,
        public float $eccentricity,
        public float $inclination,
        public float $inclinationRate,
        public float $node,
        public float $nodeRate,
        public float $perigee,
        public float $meanAnomaly,
        public float $meanMotionDifference,
        public float $cuc,
        public float $cus,
        public float $crc,
        public float $crs,
        public float $cic,
        public float $cis,
        public float $groupDelay,
        public bool $healthy,
        /** Orbit time within its own system's week, which the node counts from. */
        public float $secondsOfWeek,
    ) {
    }

    /**
     * Where the satellite is at an instant, in the frame that turns with the earth, and how far its clock is ahead.
     *
     * @return array{float, float, float, float} x, y, z in metres; clock in seconds, without the group delay
     */
    public function at(GpsTime $time): array
    {
        $system = $this->satellite[0];
        $t = $time->since($this->orbitTime);
        $a = $this->sqrtA * $this->sqrtA;
        $e = $this->eccentricity;
        $m = $this->meanAnomaly + (sqrt(self::GM[$system] / ($a * $a * $a)) + $this->meanMotionDifference) * $t;
        $ea = $m;
        for ($k = 0; $k < 20; ++$k) {
            $step = ($ea - $e * sin($ea) - $m) / (1.0 - $e * cos($ea));
            $ea -= $step;
            if (abs($step) < 1e-14) {
                break;
            }
        }
        $u = atan2(sqrt(1.0 - $e * $e) * sin($ea), cos($ea) - $e) + $this->perigee;
        $s2 = sin(2.0 * $u);
        $c2 = cos(2.0 * $u);
        $r = $a * (1.0 - $e * cos($ea)) + $this->crs * $s2 + $this->crc * $c2;
        $i = $this->inclination + $this->inclinationRate * $t + $this->cis * $s2 + $this->cic * $c2;
        $u += $this->cus * $s2 + $this->cuc * $c2;
        $rotation = self::ROTATION[$system];
        $node = $this->node + ($this->nodeRate - $rotation) * $t - $rotation * $this->secondsOfWeek;
        $x = $r * cos($u);
        $y = $r * sin($u);
        $tc = $time->since($this->clockTime);
        $clock = $this->clockBias + $this->clockDrift * $tc + $this->clockDriftRate * $tc * $tc
            + self::RELATIVITY * $e * $this->sqrtA * sin($ea);

        return [
            $x * cos($node) - $y * cos($i) * sin($node), $x * sin($node) + $y * cos($i) * cos($node), $y * sin($i), $clock,
        ];
    }
}
