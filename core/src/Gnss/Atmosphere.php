<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** How much the atmosphere over two receivers may differ after the models: standard deviations in the zenith, metres. */
final readonly class Atmosphere
{
    /** Metres of ionospheric difference by metre of line, one standard deviation (about 1 ppm; common practice). */
    private const IONOSPHERE = 1.0e-6;

    /** The same of the troposphere. */
    private const AIR = 0.2e-6;

    /** Seconds over which its errors hang together: epochs within are no new evidence (about 20 minutes; common practice). */
    private const MEMORY = 1200.0;

    /** So loose that only what is free of the ionosphere counts, metres. */
    private const FREE = 5.0;

    /**
     * @param float $ionosphere on the first band
     * @param float $air        of what the model leaves of the troposphere
     */
    private function __construct(public float $ionosphere, public float $air, public bool $isFree)
    {
    }

    /**
     * For one epoch by itself.
     *
     * @param float $length of the line, metres
     * @param bool  $isFree the ionosphere of every satellite is unknown, whatever the length
     */
    public static function over(float $length, bool $isFree): self
    {
        return new self($isFree ? self::FREE : self::IONOSPHERE * $length, self::AIR * $length, $isFree);
    }

    /**
     * For epochs that are summed as if they were independent: so much larger that their sum weighs what it is worth.
     *
     * @param list<GpsTime> $times of a session
     */
    public static function throughout(float $length, bool $isFree, array $times): self
    {
        $count = \count($times);
        $span = $count < 2 ? 0.0 : $times[$count - 1]->since($times[0]);
        $one = self::over($length, $isFree);
        $factor = $span > 0.0 ? sqrt(max(1.0, min(self::MEMORY, $span) * ($count - 1) / $span)) : 1.0;

        return new self(min(self::FREE, $factor * $one->ionosphere), $factor * $one->air, $isFree);
    }

    /**
     * What it adds at an elevation to the variance of rover less base.
     *
     * @return array{float, float} of the ionosphere on the first band, and of the troposphere, metres squared
     */
    public function variances(float $elevation): array
    {
        $sine = max(0.1, sin($elevation));

        return [($this->ionosphere / max(0.2, $sine)) ** 2, ($this->air / ($sine * $sine)) ** 2];
    }
}
