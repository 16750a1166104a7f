<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** What a processing is done with, besides what was recorded. */
final readonly class Options
{
    /**
     * @param float $mask   least elevation, radians
     * @param bool  $isFree every satellite's ionosphere is unknown, for long lines; else it is weighted by the length
     * @param ?AntennaModel $baseAntenna  calibration of the base's antenna; null takes its phases to be received at the reference point
     * @param ?AntennaModel $roverAntenna likewise of the rover
     */
    public function __construct(
        public float $mask, public bool $isFree = false, public ?AntennaModel $baseAntenna = null,
        public ?AntennaModel $roverAntenna = null,
    ) {
    }
}
