<?php

declare(strict_types=1);

namespace App\HandOver\Field;

/**
 * A rover that is not there: it stands where it is led and measures with the noise of a fixed solution. The ground it stands on
 * follows the design with what is not yet cut or filled. Metres.
 */
final class SimulatedRover
{
    public const SD_PLAN = 0.008;
    private const SD_HEIGHT = 0.012;

    /** Heights by which the ground still is off the design, and over what lengths that changes. */
    private const OFF = [[0.09, 7.3, 0.4], [0.05, 3.1, 1.9]];

    /** Even numbers that are told apart. */
    private const STEPS = 1 << 30;

    /** How high the ground lies beside the design. */
    private const BESIDE = 0.35;

    /**
     * @param ?float $design height of the surface there
     * @param float  $beside height of the ground where there is none
     *
     * @return array{float, float, float} as it measures
     */
    public static function measured(float $e, float $n, ?float $design, float $beside, int $epoch): array
    {
        $ground = null === $design ? $beside + self::BESIDE : $design;
        foreach (self::OFF as [$by, $length, $phase]) {
            $ground += $by * sin($e / $length + $phase) * cos($n / $length - $phase);
        }
        // The same place and epoch give the same noise: what is shown can be measured again.
        $seed = crc32(\sprintf('%.3F %.3F %d', $e, $n, $epoch));
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $even = static fn (): float => ($random->getInt(0, self::STEPS - 1) + 0.5) / self::STEPS;
        // Box and Muller 1958: normal numbers of even ones.
        $normal = static fn (): float => sqrt(-2.0 * log($even())) * cos(2.0 * \M_PI * $even());

        return [$e + self::SD_PLAN * $normal(), $n + self::SD_PLAN * $normal(), $ground + self::SD_HEIGHT * $normal()];
    }
}
