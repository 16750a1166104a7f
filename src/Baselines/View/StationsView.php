<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A reference-station service near the project, and what may be wanted of it. */
final readonly class StationsView
{
    /**
     * @param list<ReferenceStationView> $stations nearest first
     * @param ?float $from first instant proposed, seconds of GPS time since 1980-01-06: when the receivers of the project began
     * @param string $why  why there are none; empty where there are
     */
    public function __construct(public string $service, public array $stations, public ?float $from, public ?float $to, public string $why)
    {
    }
}
