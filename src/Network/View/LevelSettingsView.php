<?php

declare(strict_types=1);

namespace App\Network\View;

/** How a levelling book is worked out: metres, degrees Celsius. */
final readonly class LevelSettingsView
{
    public function __construct(
        public float $k,
        public string $per,
        public string $distribute,
        public bool $curvature,
        public float $refraction,
        public float $repeatLimit,
        public float $scalePpm,
        public float $expansion,
        public float $temperature,
        public float $referenceTemperature,
    ) {
    }
}
