<?php

declare(strict_types=1);

namespace App\Network\Book;

use Mensura\Network\Settings;

/** What the mean of several sights is worth: what the instrument and the observer add falls with their root, centring does not. */
final class MeanPrecision
{
    /**
     * @param string $kind       direction, zenith or slope-distance
     * @param ?float $slope      distance, metres; null where none was measured
     * @param ?float $horizontal likewise
     * @param float  $root       of the number of sights
     * @param ?float $spread     of one sight from the rounds, degrees; null: a priori
     *
     * @return float degrees or metres
     */
    public static function of(string $kind, ?float $slope, ?float $horizontal, float $root, ?float $spread, Settings $settings): float
    {
        $centring = hypot($settings->instrumentCentring, $settings->targetCentring);
        if ('slope-distance' === $kind) {
            [$constant, $ppm] = $settings->distanceSd ?? [0.002, 2.0];

            return hypot(hypot($constant, 1e-6 * $ppm * (float) $slope) / $root, $centring);
        }
        $stated = 'zenith' === $kind ? $settings->zenithSd ?? $settings->directionSd : $settings->directionSd;
        $own = ($spread ?? $stated ?? 0.0005) / $root;
        if (null === $slope || null === $horizontal) {
            return $own;
        }

        return hypot($own, rad2deg('zenith' === $kind ? \M_SQRT2 * $settings->heightCentring / $slope : $centring / $horizontal));
    }
}
