<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** Ionospheric delay of the broadcast model (IS-GPS-200, section 20.3.3.5.2.5). */
final class Klobuchar
{
    /**
     * @param array{float, float, float, float, float, float, float, float} $k alpha 0 to 3, beta 0 to 3
     * @param float $lat       radians
     * @param float $lon       radians
     * @param float $azimuth   radians
     * @param float $elevation radians
     *
     * @return float metres on the first GPS frequency
     */
    public static function delay(array $k, float $lat, float $lon, float $azimuth, float $elevation, float $secondsOfWeek): float
    {
        // In semicircles, as the document has it.
        $e = $elevation / \M_PI;
        $psi = 0.0137 / ($e + 0.11) - 0.022;
        $phi = max(-0.416, min(0.416, $lat / \M_PI + $psi * cos($azimuth)));
        $lambda = $lon / \M_PI + $psi * sin($azimuth) / cos($phi * \M_PI);
        $phi += 0.064 * cos(($lambda - 1.617) * \M_PI);
        $t = fmod(43200.0 * $lambda + $secondsOfWeek, 86400.0);
        $t = $t < 0.0 ? $t + 86400.0 : $t;
        $slant = 1.0 + 16.0 * (0.53 - $e) ** 3;
        $amplitude = max(0.0, $k[0] + $phi * ($k[1] + $phi * ($k[2] + $phi * $k[3])));
        $period = max(72000.0, $k[4] + $phi * ($k[5] + $phi * ($k[6] + $phi * $k[7])));
        $x = 2.0 * \M_PI * ($t - 50400.0) / $period;
        $seconds = $slant * (5e-9 + (abs($x) < 1.57 ? $amplitude * (1.0 - $x * $x / 2.0 + $x ** 4 / 24.0) : 0.0));

        return Signal::LIGHT * $seconds;
    }
}
