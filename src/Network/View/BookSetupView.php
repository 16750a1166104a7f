<?php

declare(strict_types=1);

namespace App\Network\View;

/** One instrument set-up, reduced: metres, degrees, parts per million. */
final readonly class BookSetupView
{
    /**
     * @param list<array{target: string, ht: float, direction: float, zenith: float, slope: ?float, horizontal: ?float,
     *     heightDifference: ?float, faces: string, pointings: int,
     *     ellipsoid: ?float, grid: ?float}> $targets
     * @param list<array{id: int, round: string, face: ?int, target: string, ht: float, direction: ?float, zenith: ?float,
     *     distance: ?float, used: bool, line: ?int, corrected: bool}> $pointings as recorded
     * @param list<string> $warnings
     * @param ?string      $fault    why it cannot be reduced
     */
    public function __construct(
        public string $key,
        public string $station,
        public float $hi,
        public int $rounds,
        public ?float $collimation,
        public ?float $index,
        public ?float $sdDirection,
        public ?float $sdZenith,
        public ?float $spread,
        public float $ppm,
        public array $targets,
        public array $pointings,
        public array $warnings,
        public ?string $fault,
        public string $mode,
        public string $precision,
        public ?float $temperature,
        public ?float $pressure,
        public ?float $humidity,
        public float $prism,
        /** Weather recorded with its sights, in words; empty where none was. */
        public string $recordedWeather,
    ) {
    }
}
