<?php

declare(strict_types=1);

namespace App\Network\View;

/** Error ellipse of a station seen from another; metres at the run's confidence, bearing in degrees. */
final readonly class RelativeView
{
    public function __construct(
        public string $from,
        public string $to,
        public float $semiMajor,
        public float $semiMinor,
        public float $bearing,
        public float $sdH,
    ) {
    }
}
