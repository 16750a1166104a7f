<?php

declare(strict_types=1);

namespace Mensura\Observation;

/** What was measured. The values are the names used in files and in the batch contract. */
enum ObservationKind: string
{
    case Direction = 'direction';
    case Angle = 'angle';
    case Azimuth = 'azimuth';
    case SlopeDistance = 'slope-distance';
    case HorizontalDistance = 'horizontal-distance';
    case Zenith = 'zenith';
    case HeightDifference = 'height-difference';
    case Vector = 'vector';

    public function isAngular(): bool
    {
        return match ($this) {
            self::Direction, self::Angle, self::Azimuth, self::Zenith => true,
            default => false,
        };
    }

    /** True when the observation alone says nothing about heights. */
    public function isPlanOnly(): bool
    {
        return match ($this) {
            self::Direction, self::Angle, self::Azimuth, self::HorizontalDistance => true,
            default => false,
        };
    }
}
