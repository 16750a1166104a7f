<?php

declare(strict_types=1);

namespace Mensura\Quantity;

/** Angles as people write them. Values in decimal degrees. */
final class Angle
{
    /**
     * Degrees, minutes and seconds with spaces, colons or signs ("12 34 56.7", "12°34'56.7\"", "12:34:56.7"), or decimal
     * degrees when there is one number.
     *
     * @return ?float null when it is not an angle (minutes or seconds of 60 and more included)
     */
    public static function parse(string $text): ?float
    {
        $text = trim(strtr($text, ['°' => ' ', 'º' => ' ', '′' => ' ', '″' => ' ', "'" => ' ', '"' => ' ', ':' => ' ', '−' => '-']));
        $hemisphere = 1.0;
        if (1 === preg_match('/^(.*\S)\s*([NSEW])$/i', $text, $match)) {
            $text = $match[1];
            $hemisphere = \in_array(strtoupper($match[2]), ['S', 'W'], true) ? -1.0 : 1.0;
        }
        if (1 !== preg_match('/^([+-]?)(\d+(?:\.\d+)?)(?:\s+(\d+(?:\.\d+)?))?(?:\s+(\d+(?:\.\d+)?))?$/', trim($text), $part)) {
            return null;
        }
        $minutes = $part[3] ?? '';
        $seconds = $part[4] ?? '';
        if ('' !== $minutes && str_contains($part[2], '.') || '' !== $seconds && str_contains($minutes, '.')) {
            return null;
        }
        if ((float) $minutes >= 60.0 || (float) $seconds >= 60.0) {
            return null;
        }

        return $hemisphere * ('-' === $part[1] ? -1.0 : 1.0) * ((float) $part[2] + (float) $minutes / 60.0 + (float) $seconds / 3600.0);
    }

    /** D.MMSSsss, as some field books pack it: 12.34567 means 12 deg 34 min 56.7 s. */
    public static function parsePacked(string $text): ?float
    {
        if (1 !== preg_match('/^([+-]?)(\d+)(?:\.(\d*))?$/', trim($text), $part)) {
            return null;
        }
        $digits = str_pad($part[3] ?? '', 4, '0');
        $minutes = (int) substr($digits, 0, 2);
        $seconds = (float) (substr($digits, 2, 2).'.'.substr($digits, 4));
        if ($minutes >= 60 || $seconds >= 60.0) {
            return null;
        }

        return ('-' === $part[1] ? -1.0 : 1.0) * ((int) $part[2] + $minutes / 60.0 + $seconds / 3600.0);
    }

    /** "12 34 56.7" with the given decimals of seconds; carries correctly. */
    public static function format(float $degrees, int $decimals = 1): string
    {
        $sign = $degrees < 0.0 ? '-' : '';
        $units = round(abs($degrees) * 3600.0 * 10 ** $decimals);
        $seconds = fmod($units, 60.0 * 10 ** $decimals) / 10 ** $decimals;
        $minutes = floor($units / (60.0 * 10 ** $decimals));

        return \sprintf(
            '%s%d %02d %0'.(0 === $decimals ? 2 : 3 + $decimals).'.'.$decimals.'f', $sign, intdiv((int) $minutes, 60),
            (int) $minutes % 60, $seconds,
        );
    }
}
