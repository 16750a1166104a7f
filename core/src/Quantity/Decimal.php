<?php

declare(strict_types=1);

namespace Mensura\Quantity;

/** Fixed-point text of numbers, several times faster than sprintf in tables of millions of rows. */
final class Decimal
{
    /** @param int $digits decimals, at most 12; numbers of a thousand million and more go through sprintf */
    public static function fixed(float $value, int $digits): string
    {
        $size = abs($value);
        if (!is_finite($value) || $size >= 1e6 && $digits > 9 || $size >= 1e9) {
            return \sprintf('%.'.$digits.'F', $value);
        }
        $unit = 10 ** $digits;
        $whole = (int) $size;
        $part = (int) (($size - $whole) * $unit + 0.5);
        if ($part >= $unit) {
            ++$whole;
            $part -= $unit;
        }

        return ($value < 0.0 && 0 !== $whole + $part ? '-' : '').$whole.'.'.substr((string) ($unit + $part), 1);
    }
}
