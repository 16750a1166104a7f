<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** What a position report says. Geocentric, metres. */
final readonly class ReportView
{
    /**
     * @param list<float> $place
     * @param list<float> $sd    east, north, up
     */
    public function __construct(
        public string $marker, public string $frame, public float $epoch, public array $place, public array $sd, public string $method,
    ) {
    }
}
