<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/**
 * One sight of a total station: direction and zenith angle in degrees as of the first face, whichever was read; slope distance,
 * horizontal distance and heights in metres. Where an angle was read, from which station it counts.
 */
final readonly class Pointing
{
    /** @param ?array{float, float, float} $weather degrees Celsius, hectopascal, percent */
    public function __construct(
        public int $line,
        public string $station,
        public string $set,
        public string $target,
        public float $hi,
        public float $ht,
        public float $direction,
        public ?float $zenith,
        public ?float $distance,
        public string $code,
        public ?int $face = null,
        public ?float $horizontal = null,
        public string $back = '',
        public ?array $weather = null,
    ) {
    }
}
