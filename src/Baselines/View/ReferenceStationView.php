<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A reference station of a service. Metres; places in the project where it can say. */
final readonly class ReferenceStationView
{
    /**
     * @param list<int>    $intervals seconds
     * @param list<string> $formats
     */
    public function __construct(
        public string $id, public float $lat, public float $lon, public float $h, public float $distance, public ?float $e,
        public ?float $n,
        public array $intervals, public array $formats,
    ) {
    }
}
