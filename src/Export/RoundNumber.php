<?php

declare(strict_types=1);

namespace App\Export;

/** Numbers people count in: 1, 2 or 5 times a power of ten. */
final class RoundNumber
{
    /** The greatest at most the value, which is positive. */
    public static function atMost(float $value): float
    {
        $power = 10.0 ** floor(log10($value));
        foreach ([5.0, 2.0, 1.0] as $step) {
            if ($value >= $step * $power) {
                return $step * $power;
            }
        }

        return $power;
    }

    /** The least not below the value, which is positive. */
    public static function atLeast(float $value): float
    {
        $below = self::atMost($value);
        if ($below >= 0.999 * $value) {
            return $below;
        }

        return self::atMost($below * 2.5000001);
    }
}
