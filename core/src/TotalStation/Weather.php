<?php

declare(strict_types=1);

namespace Mensura\TotalStation;

/** Air along a sight: temperature in degrees Celsius, pressure in hectopascal, relative humidity in percent. */
final readonly class Weather
{
    public function __construct(public float $temperature, public float $pressure, public float $humidity)
    {
    }

    /**
     * Group refractivity of the air for light, in parts per million above 1.
     *
     * Resolution 3 of the International Association of Geodesy (1999), the closed formula: Ng = 287.6155 + 4.88660/w^2 +
     * 0.06800/w^4 at standard air, N = 273.15/1013.25 Ng p/T - 11.27 e/T; the vapour pressure over water after Magnus and
     * Tetens, e = 6.1078 exp(17.269 t/(237.3 + t)) times the relative humidity.
     *
     * @param float $wavelength micrometres
     */
    public function refractivity(float $wavelength): float
    {
        $square = $wavelength * $wavelength;
        $standard = 287.6155 + 4.88660 / $square + 0.06800 / ($square * $square);
        $kelvin = $this->temperature + 273.15;
        $vapour = $this->humidity / 100.0 * 6.1078 * exp(17.269 * $this->temperature / (237.3 + $this->temperature));

        return 273.15 / 1013.25 * $standard * $this->pressure / $kelvin - 11.27 * $vapour / $kelvin;
    }
}
