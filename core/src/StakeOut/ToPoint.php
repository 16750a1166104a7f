<?php

declare(strict_types=1);

namespace Mensura\StakeOut;

/** From where one stands to a mark that is to be set out: in the grid, and as one walks. Metres; radians from grid north, clockwise. */
final readonly class ToPoint
{
    /**
     * @param float  $forward in the direction of walking, backwards negative
     * @param float  $right   of it, left negative
     * @param ?float $fill    of the mark's height above the ground; negative is cut
     */
    private function __construct(
        public float $distance, public float $bearing, public float $forward, public float $right, public ?float $fill,
    ) {
    }

    /**
     * Plane polar coordinates (common practice), and their turn into the direction of walking.
     *
     * @param array{float, float, ?float} $from    easting, northing, height
     * @param array{float, float, ?float} $to
     * @param float                       $heading of who walks
     */
    public static function of(array $from, array $to, float $heading): self
    {
        [$de, $dn] = [$to[0] - $from[0], $to[1] - $from[1]];
        $bearing = atan2($de, $dn);

        return new self(
            hypot($de, $dn), $bearing < 0.0 ? $bearing + 2.0 * \M_PI : $bearing,
            $de * sin($heading) + $dn * cos($heading), $de * cos($heading) - $dn * sin($heading),
            null === $from[2] || null === $to[2] ? null : $to[2] - $from[2],
        );
    }
}
