<?php

declare(strict_types=1);

namespace Demo\Gnss;

/** One receiver under an invented sky: where its antenna is, when it records and what is wrong with it. */
final readonly class Receiver
{
    public const BOTH_BANDS = ['G' => ['C1C', 'L1C', 'C2W', 'L2W']];
    public const EVERYTHING = ['G' => ['C1C', 'L1C', 'S1C', 'C2W', 'L2W', 'S2W'], 'E' => ['C1C', 'L1C', 'S1C', 'C5Q', 'L5Q', 'S5Q']];

    /**
     * @param array{float, float, float}|\Closure(int): array{float, float, float} $place  of the antenna, geocentric; at an epoch, where
     *     it moves
     * @param string                               $markerType as in RINEX 3; empty where the header states none
     * @param float                                $begin      seconds after the sky's time of reference
     * @param float                                $clock      ahead of GPS time, seconds
     * @param array<string, list<string>>          $types      of observations by system
     * @param float                                $ionosphere in the zenith on the first band, metres
     * @param array<string, int>                   $slips      epochs at which a satellite's phases jump
     * @param ?array{float, float, float}          $header     what it believes its place to be
     * @param list<array{float, float, float}>     $obstructed azimuth from and to, and elevation below which nothing is seen, degrees
     * @param array{int, int}                      $shaded     epochs from and before which all below $shade is lost
     */
    public function __construct(
        public string $marker,
        public array|\Closure $place,
        public int $epochs,
        public float $interval,
        public float $clock = 0.0,
        public array $types = self::BOTH_BANDS,
        public float $ionosphere = 4.0,
        public float $begin = -900.0,
        public array $slips = [],
        public float $height = 0.0,
        public string $antenna = 'INVENTED ANTENNA',
        public ?array $header = null,
        public float $codeNoise = 0.3,
        public array $obstructed = [],
        public array $shaded = [0, 0],
        public float $shade = 0.0,
        public string $markerType = '',
    ) {
    }

    public function isHidden(float $elevation, float $azimuth, int $epoch): bool
    {
        if ($epoch >= $this->shaded[0] && $epoch < $this->shaded[1] && $elevation < deg2rad($this->shade)) {
            return true;
        }
        $turn = fmod(rad2deg($azimuth) + 360.0, 360.0);
        foreach ($this->obstructed as [$from, $to, $below]) {
            if ($turn >= $from && $turn <= $to && $elevation < deg2rad($below)) {
                return true;
            }
        }

        return false;
    }
}
