<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A receiver's own file. Seconds of GPS time since 1980-01-06. */
final readonly class RecordingView
{
    /** @param bool $written whether it is in the project as RINEX already */
    public function __construct(
        public int $id, public string $name, public string $kind, public string $marker, public int $epochs, public int $satellites,
        public int $ephemerides,
        public ?float $from, public ?float $to, public bool $written,
    ) {
    }
}
