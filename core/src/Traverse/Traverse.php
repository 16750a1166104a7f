<?php

declare(strict_types=1);

namespace Mensura\Traverse;

use Mensura\Fault\UnusableInput;

/**
 * A traverse from a known point along measured angles and distances, closed or open. Plane coordinates, azimuths from north.
 */
final readonly class Traverse
{
    /**
     * @param array{float, float}  $start        e, n of the first station
     * @param float                $startAzimuth of the line from the first station to its backsight, degrees
     * @param list<Leg>            $legs         first to last station
     * @param ?array{float, float} $end          e, n of the last station, null for an open traverse
     * @param ?float               $endAzimuth   of the line from the last station to its foresight
     *
     * @throws UnusableInput
     */
    public function __construct(
        public array $start,
        public float $startAzimuth,
        public array $legs,
        public ?array $end = null,
        public ?float $endAzimuth = null,
    ) {
        $last = \count($legs) - 1;
        if ($last < 1) {
            throw new UnusableInput('stations', 'a traverse has at least two stations');
        }
        $seen = [];
        foreach ($legs as $i => $leg) {
            if (null === $leg->angle && ($i < $last || null !== $endAzimuth)) {
                throw new UnusableInput("stations[$i].angle", \sprintf('station "%s" has no angle', $leg->id));
            }
            if (null === $leg->distance && $i < $last) {
                throw new UnusableInput("stations[$i].distance", \sprintf('station "%s" has no distance to the next', $leg->id));
            }
            if ($i === $last && null !== $leg->distance) {
                throw new UnusableInput("stations[$i].distance", \sprintf(
                    'station "%s" is the last and has a distance; add the station it leads to as a row of its own', $leg->id,
                ));
            }
            if ($i === $last && null !== $leg->angle && null === $endAzimuth) {
                throw new UnusableInput("stations[$i].angle", \sprintf(
                    'the angle at the last station "%s" closes on a line whose azimuth is not given; add endAzimuth or leave the angle out',
                    $leg->id,
                ));
            }
            if (isset($seen["s$leg->id"]) && !($i === $last && $leg->id === $legs[0]->id)) {
                throw new UnusableInput("stations[$i].id", \sprintf('station "%s" is there twice', $leg->id));
            }
            $seen["s$leg->id"] = true;
        }
        if ($legs[0]->id === $legs[$last]->id && null !== $end && hypot($end[0] - $start[0], $end[1] - $start[1]) > 1e-6) {
            throw new UnusableInput('end', \sprintf('a loop ends at its start, but "%s" has two places', $legs[0]->id));
        }
    }
}
