<?php

declare(strict_types=1);

namespace Mensura\Traverse;

use Mensura\Network\Adjustment;
use Mensura\Network\AdjustmentResult;
use Mensura\Network\NetworkDefinition;
use Mensura\Network\PlaneFrame;
use Mensura\Network\Settings;
use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;
use Mensura\Observation\Station;

/**
 * A closed traverse as a network: all its angles and distances adjusted at once by least squares, both ends and the lines
 * of orientation held.
 */
final class RigorousTraverse
{
    /** How far the points stand off that carry the given azimuths, metres. */
    private const FAR = 1000.0;

    /**
     * @param float               $angleSd    degrees
     * @param array{float, float} $distanceSd metres, parts per million
     *
     * @return ?AdjustmentResult null for an open traverse: nothing in it can be adjusted. Stations are named by their row
     */
    public static function adjust(Traverse $traverse, CompassRule $compass, float $angleSd, array $distanceSd): ?AdjustmentResult
    {
        if (null === $traverse->end) {
            return null;
        }
        $last = \count($traverse->legs) - 1;
        $isLoop = $traverse->legs[0]->id === $traverse->legs[$last]->id;
        $fixed = [true, true, false];
        $stations = [];
        foreach ($compass->places as $i => [$e, $n]) {
            if (0 === $i) {
                [$e, $n] = $traverse->start;
            } elseif ($i === $last) {
                [$e, $n] = $traverse->end;
            }
            if ($i < $last || !$isLoop) {
                $stations[] = new Station("row $i", $e, $n, null, 0 === $i || $i === $last ? $fixed : [false, false, false]);
            }
        }
        $name = static fn (int $i): string => $isLoop && $i === $last ? 'row 0' : "row $i";
        $stations[] = self::away('back', $traverse->start, $traverse->startAzimuth);
        if (null !== $traverse->endAzimuth) {
            $stations[] = self::away('fore', $traverse->end, $traverse->endAzimuth);
        }
        $observations = [];
        foreach ($traverse->legs as $i => $leg) {
            $fore = $i < $last ? $name($i + 1) : 'fore';
            if (null !== $leg->angle) {
                $observations[] = new Observation(
                    ObservationKind::Angle, $name($i), $fore, $leg->angle, $angleSd, back: 0 === $i ? 'back' : $name($i - 1),
                );
            }
            if (null !== $leg->distance) {
                $observations[] = new Observation(
                    ObservationKind::HorizontalDistance, $name($i), $fore, $leg->distance,
                    hypot($distanceSd[0], 1e-6 * $distanceSd[1] * $leg->distance),
                );
            }
        }

        return (new Adjustment(new NetworkDefinition(new PlaneFrame(), new Settings(maxIterations: 50), $stations, $observations)))->run();
    }

    /** @param array{float, float} $from */
    private static function away(string $id, array $from, float $azimuth): Station
    {
        $a = deg2rad($azimuth);

        return new Station($id, $from[0] + self::FAR * sin($a), $from[1] + self::FAR * cos($a), null, [true, true, false]);
    }
}
