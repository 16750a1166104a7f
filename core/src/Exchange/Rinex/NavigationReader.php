<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Fault\UnusableInput;
use Mensura\Gnss\Ephemeris;
use Mensura\Gnss\GpsTime;

/**
 * RINEX navigation files 2.11 (GPS) and 3.02 to 3.05 (GPS, Galileo, BeiDou; records of other systems are passed over).
 */
final class NavigationReader
{
    /** Lines of a record besides the first. */
    private const MORE = ['G' => 7, 'E' => 7, 'C' => 7, 'J' => 7, 'I' => 7, 'R' => 3, 'S' => 3];

    /** BeiDou weeks are counted from 2006-01-01, BeiDou time is 14 s behind GPS time. */
    private const BEIDOU_WEEK = 1356;
    private const BEIDOU_BEHIND = 14.0;

    /** @throws UnusableInput naming file and line */
    public static function read(string $bytes, string $name): NavigationFile
    {
        $lines = new HeaderLines($bytes, $name);
        $isShort = $lines->version < 3.0;
        if ('N' !== $lines->type) {
            throw $lines->fault(\sprintf(
                'is a RINEX file of type %s; a navigation file with GPS or Galileo ephemerides is needed',
                $lines->type,
            ));
        }
        $file = new NavigationFile();
        self::header($lines, $file);
        while (null !== $line = $lines->next()) {
            if ('' === trim($line)) {
                continue;
            }
            $system = $isShort ? 'G' : $line[0];
            $more = self::MORE[$system] ?? throw $lines->fault('a navigation record begins with the letter of a system');
            $values = \array_slice(array_pad(self::values($lines, $line, $isShort ? 22 : 23), 3, 0.0), 0, 3);
            for ($k = 0; $k < $more; ++$k) {
                $next = $lines->next();
                if (null === $next) {
                    return $file; // a record that is cut off is none
                }
                array_push($values, ...array_pad(self::values($lines, $next, $isShort ? 3 : 4), 4, 0.0));
            }
            if (\in_array($system, ['G', 'E', 'C'], true)) {
                $ephemeris = self::ephemeris($system, $line, $values, $isShort, $lines);
                if (null !== $ephemeris) {
                    $file->ephemerides[] = $ephemeris;
                }
            }
        }

        return $file;
    }

    private static function header(HeaderLines $lines, NavigationFile $file): void
    {
        $alpha = $beta = null;
        while (true) {
            $line = $lines->next() ?? throw $lines->fault('ends within its header');
            $label = trim(substr($line, 60, 20));
            $isThree = 'IONOSPHERIC CORR' === $label;
            if ('ION ALPHA' === $label || $isThree && 'GPSA' === substr($line, 0, 4)) {
                $alpha = self::values($lines, $line, $isThree ? 5 : 2, 12);
            }
            if ('ION BETA' === $label || $isThree && 'GPSB' === substr($line, 0, 4)) {
                $beta = self::values($lines, $line, $isThree ? 5 : 2, 12);
            }
            if ('END OF HEADER' === $label) {
                break;
            }
        }
        if (null !== $alpha && null !== $beta) {
            $file->klobuchar = [
                $alpha[0] ?? 0.0, $alpha[1] ?? 0.0, $alpha[2] ?? 0.0, $alpha[3] ?? 0.0, $beta[0] ?? 0.0, $beta[1] ?? 0.0, $beta[2] ?? 0.0,
                $beta[3] ?? 0.0,
            ];
        }
    }

    /**
     * Numbers in cells of equal width, with D or E before the exponent.
     *
     * @param positive-int $width
     *
     * @return list<float>
     */
    private static function values(HeaderLines $lines, string $line, int $at, int $width = 19): array
    {
        $values = [];
        foreach (str_split(substr($line, $at, 4 * $width), $width) as $cell) {
            $plain = trim(strtr($cell, 'Dd', 'EE'));
            if ('' !== $plain && !is_numeric($plain)) {
                throw $lines->fault(\sprintf('"%s" is not a number', mb_scrub($plain)));
            }
            $values[] = (float) $plain;
        }

        return $values;
    }

    /** @param list<float> $v clock (3, or more cells of the first line), then four a line */
    private static function ephemeris(string $system, string $first, array $v, bool $isShort, HeaderLines $lines): ?Ephemeris
    {
        $cells = preg_split('/\s+/', trim(substr($first, $isShort ? 3 : 4, $isShort ? 19 : 19))) ?: [];
        if (6 !== \count($cells) || 6 !== \count(array_filter($cells, is_numeric(...)))) {
            throw $lines->fault('the time of a navigation record cannot be read');
        }
        $year = (int) $cells[0];
        $year = $isShort ? $year + ($year < 80 ? 2000 : 1900) : $year;
        $clock = GpsTime::civil($year, (int) $cells[1], (int) $cells[2], (int) $cells[3], (int) $cells[4], (float) $cells[5]);
        $o = \array_slice($v, 3);
        $sqrtA = $o[7];
        if ($sqrtA < 4000.0 || $sqrtA > 7000.0) {
            return null; // not in medium orbit, or no element at all
        }
        // Weeks are continuous in RINEX; a file that counts modulo 1024 is brought near the clock's time.
        $week = (int) $o[18];
        if ('C' === $system) {
            $week += self::BEIDOU_WEEK;
        } elseif ($week < 1024) {
            $week += 1024 * (int) round(($clock->week - $week) / 1024.0);
        }
        $behind = 'C' === $system ? self::BEIDOU_BEHIND : 0.0;
        $orbit = GpsTime::of($week, $o[8] + $behind);
        if (abs($orbit->since($clock)) > GpsTime::WEEK) {
            throw $lines->fault(\sprintf('the week %d of this record does not fit its time', (int) $o[18]));
        }
        // Galileo: the I/NAV message (bits 0 and 2 of the data sources) carries the clock of E1 and E5b, F/NAV that of E1 and E5a.
        if ('E' === $system && 0 === ((int) $o[17] & 5) && 0 !== (int) $o[17]) {
            return null;
        }

        return new Ephemeris(
            $system.\sprintf('%02d', (int) substr($first, $isShort ? 0 : 1, 2)), $clock->plus($behind), $orbit, $v[0], $v[1], $v[2],
            $sqrtA, $o[5], $o[12], $o[16], $o[10], $o[15], $o[14], $o[3], $o[2], $o[4], $o[6], $o[13], $o[1], $o[9], $o[11],
            'E' === $system ? $o[23] : $o[22], 0 === (int) $o[21] || 'E' === $system && 0 === ((int) $o[21] & 0x1FF), $o[8],
        );
    }
}
