<?php

declare(strict_types=1);

namespace App\Network\View;

/** A-priori precision and options of the adjustment. Angular sd in arc seconds, lengths in metres. */
final readonly class SettingsView
{
    /** @param array<string, float> $factors of the standard deviations of groups: a kind, or a kind and its setup or session */
    public function __construct(
        public float $directionSd,
        public float $zenithSd,
        public float $distanceConstant,
        public float $distancePpm,
        public float $instrumentCentring,
        public float $targetCentring,
        public float $heightCentring,
        public float $refraction,
        public float $confidence,
        public bool $free,
        public array $factors,
        /** What stands for the plumb line: "none" the ellipsoid's normal, "geoid" its slope, "measured" xi and eta in arc seconds. */
        public string $deflections,
        public float $xi,
        public float $eta,
    ) {
    }
}
