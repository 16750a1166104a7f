<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/**
 * Delay by the neutral atmosphere: zenith delay after Saastamoinen (1972) with the standard atmosphere at the height of the
 * antenna and half-moist air, mapped to the elevation after Niell (1996), without his height correction of the sea-level terms.
 */
final class Troposphere
{
    /** Hydrostatic and wet coefficients a, b, c at latitudes 15, 30, 45, 60, 75 degrees (Niell 1996, tables 3 and 4, averages). */
    private const DRY = [
        [1.2769934e-3, 2.9153695e-3, 62.610505e-3], [1.2683230e-3, 2.9152299e-3, 62.837393e-3], [1.2465397e-3, 2.9288445e-3, 63.721774e-3],
        [1.2196049e-3, 2.9022565e-3, 63.824265e-3], [1.2045996e-3, 2.9024912e-3, 64.258455e-3],
    ];
    private const WET = [
        [5.8021897e-4, 1.4275268e-3, 4.3472961e-2], [5.6794847e-4, 1.5138625e-3, 4.6729510e-2], [5.8118019e-4, 1.4572752e-3, 4.3908931e-2],
        [5.9727542e-4, 1.5007428e-3, 4.4626982e-2], [6.1641693e-4, 1.7599082e-3, 5.4736038e-2],
    ];
    private const HUMIDITY = 0.5;

    /** @var array{float, float} zenith delays, dry and wet, metres */
    public readonly array $zenith;

    /** @var array{float, float, float} */
    private array $dry;

    /** @var array{float, float, float} */
    private array $wet;

    /**
     * @param float $latitude radians
     * @param float $height   above the ellipsoid, metres; taken for that above the sea
     */
    public function __construct(float $latitude, float $height)
    {
        $h = max(-500.0, min(9000.0, $height));
        $pressure = 1013.25 * (1.0 - 2.2557e-5 * $h) ** 5.2568;
        $kelvin = 15.0 - 6.5e-3 * $h + 273.16;
        $vapour = 6.108 * self::HUMIDITY * exp((17.15 * $kelvin - 4684.0) / ($kelvin - 38.45));
        $this->zenith = [
            0.0022768 * $pressure / (1.0 - 0.00266 * cos(2.0 * $latitude) - 0.00028 * $h / 1000.0),
            0.002277 * (1255.0 / $kelvin + 0.05) * $vapour,
        ];
        $this->dry = self::interpolated(self::DRY, rad2deg(abs($latitude)));
        $this->wet = self::interpolated(self::WET, rad2deg(abs($latitude)));
    }

    /** Metres along a sight at an elevation in radians. */
    public function delay(float $elevation): float
    {
        return $this->zenith[0] * self::mapping($this->dry, $elevation) + $this->zenith[1] * self::mapping($this->wet, $elevation);
    }

    /** @param array{float, float, float} $abc */
    private static function mapping(array $abc, float $elevation): float
    {
        [$a, $b, $c] = $abc;
        $s = sin(max($elevation, 0.03));

        return (1.0 + $a / (1.0 + $b / (1.0 + $c))) / ($s + $a / ($s + $b / ($s + $c)));
    }

    /**
     * @param list<array{float, float, float}> $table
     *
     * @return array{float, float, float}
     */
    private static function interpolated(array $table, float $degrees): array
    {
        $at = max(0.0, min(4.0, ($degrees - 15.0) / 15.0));
        $k = min(3, (int) floor($at));
        $f = $at - $k;
        $one = $table[$k];
        $two = $table[$k + 1];

        return [$one[0] + $f * ($two[0] - $one[0]), $one[1] + $f * ($two[1] - $one[1]), $one[2] + $f * ($two[2] - $one[2])];
    }
}
