<?php

declare(strict_types=1);

namespace Mensura\Quantity;

/** Fixed-point text of numbers, several times faster than sprintf in tables of millions of rows. */
final class Decimal
{
    private const UNITS = [1.0, 10.0, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12];

    /** Above this not every multiple of the last decimal is a double. */
    private const WHOLE = 9.0e15;

    /** @param int $digits decimals, 1 to 12; what is too large for whole multiples of the last one goes through sprintf */
    public static function fixed(float $value, int $digits): string
    {
        $unit = self::UNITS[$digits];
        $count = ($value < 0.0 ? -$value : $value) * $unit + 0.5;
        if ($count < self::WHOLE) {
            $text = (string) (int) $count;
            if ($count < $unit) {
                $text = str_pad($text, $digits + 1, '0', \STR_PAD_LEFT);
            }
            $text = substr_replace($text, '.', -$digits, 0);

            return $value < 0.0 && $count >= 1.0 ? '-'.$text : $text;
        }

        return \sprintf('%.'.$digits.'F', $value);
    }
}
