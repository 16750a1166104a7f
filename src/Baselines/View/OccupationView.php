<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A receiver on a mark. Metres in the project; seconds of GPS time since 1980-01-06. */
final readonly class OccupationView
{
    /**
     * @param ?float  $trimFrom  first instant used; null where it is the first recorded
     * @param ?float  $vertical  of the antenna reference point above the marker; null where it cannot be reduced
     * @param ?float  $e         of the marker, as the project or else its file has it
     * @param string  $placeFrom project, file, or empty where neither has it
     * @param string  $question  what is odd about its marker; empty where nothing is
     * @param ?string $suggested name its marker might be meant as
     */
    public function __construct(
        public int $id,
        public int $version,
        public string $marker,
        public string $file,
        public float $from,
        public float $to,
        public ?float $trimFrom,
        public ?float $trimTo,
        public ?float $interval,
        public int $epochs,
        public int $satellites,
        public string $receiver,
        public string $antenna,
        public string $heightKind,
        public float $heightValue,
        public float $heightRadius,
        public float $heightAbove,
        public ?float $vertical,
        public string $heightWords,
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public string $placeFrom,
        public string $question,
        public ?string $suggested,
        public bool $moves,
    ) {
    }
}
