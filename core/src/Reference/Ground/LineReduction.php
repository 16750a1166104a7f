<?php

declare(strict_types=1);

namespace Mensura\Reference\Ground;

use Mensura\Reference\Crs\HorizontalSystem;

/**
 * Factors that bring a horizontal distance, measured as the arc at the height of the instrument, to the ellipsoid and on to
 * the grid: R/(R + h) with R = sqrt(MN) at the instrument, and the mean scale of the line after Simpson (textbooks of
 * geodesy; common practice). Between points that have no place yet, those of one point stand for the line.
 */
final readonly class LineReduction
{
    private function __construct(
        /** Ellipsoidal over measured. */
        public float $toEllipsoid,
        /** Grid over ellipsoidal. */
        public float $toGrid,
    ) {
    }

    /**
     * @param array{float, float}  $from   easting, northing of the instrument, metres
     * @param float                $height of the instrument above the ellipsoid, metres
     * @param ?array{float, float} $to     of the target; null where it is not known
     */
    public static function of(HorizontalSystem $system, array $from, float $height, ?array $to): self
    {
        $start = GridPoint::at($system, $from[0], $from[1], $height);
        if (null === $to || hypot($to[0] - $from[0], $to[1] - $from[1]) < 0.01) {
            return new self($start->heightFactor, $start->scale);
        }
        $bearing = rad2deg(atan2($to[0] - $from[0], $to[1] - $from[1]));
        $middle = GridPoint::at($system, 0.5 * ($from[0] + $to[0]), 0.5 * ($from[1] + $to[1]), $height);
        $end = GridPoint::at($system, $to[0], $to[1], $height);

        return new self(
            $start->heightFactor,
            ($start->scaleAlong($bearing) + 4.0 * $middle->scaleAlong($bearing) + $end->scaleAlong($bearing)) / 6.0,
        );
    }
}
