<?php

declare(strict_types=1);

namespace Mensura\Network;

/** Error ellipse of a plan position from its covariance; handbook formula (Mikhail and Gracie 1981, chapter 8). */
final class ErrorEllipse
{
    /**
     * @param float $factor multiple of the standard ellipse
     *
     * @return array{semiMajor: float, semiMinor: float, bearing: float} metres; bearing of the major axis, degrees 0 to 180 from north
     */
    public static function of(float $qee, float $qen, float $qnn, float $factor): array
    {
        $mean = 0.5 * ($qee + $qnn);
        $difference = 0.5 * ($qnn - $qee);
        $root = hypot($difference, $qen);
        $bearing = rad2deg(0.5 * atan2($qen, $difference));

        return [
            'semiMajor' => $factor * sqrt(max(0.0, $mean + $root)),
            'semiMinor' => $factor * sqrt(max(0.0, $mean - $root)),
            'bearing' => $bearing < 0.0 ? $bearing + 180.0 : $bearing,
        ];
    }
}
