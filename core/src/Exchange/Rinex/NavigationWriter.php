<?php

declare(strict_types=1);

namespace Mensura\Exchange\Rinex;

use Mensura\Gnss\Ephemeris;

/** Writes RINEX navigation files 3.04, and 2.11 with GPS alone. Issues of data, which nothing here reads, are written as nought. */
final class NavigationWriter
{
    private const BEIDOU_WEEK = 1356;
    private const BEIDOU_BEHIND = 14.0;

    /** @param iterable<Ephemeris> $ephemerides */
    public static function write(iterable $ephemerides, string $version, string $program = 'Mensura'): string
    {
        $isShort = '2.11' === $version;
        $text = self::head(
            $isShort ? \sprintf('%9s%11s%-40s', $version, '', 'NAVIGATION DATA') : \sprintf(
                '%9s%11s%-20s%-20s', $version, '', 'N: GNSS NAV DATA', 'M: MIXED',
            ),
            'RINEX VERSION / TYPE',
        ).self::head(\sprintf('%-20.20s', $program), 'PGM / RUN BY / DATE').self::head('', 'END OF HEADER');
        foreach ($ephemerides as $e) {
            if ($isShort && 'G' !== $e->satellite[0]) {
                continue;
            }
            $text .= self::record($e, $isShort);
        }

        return $text;
    }

    private static function record(Ephemeris $e, bool $isShort): string
    {
        $system = $e->satellite[0];
        $behind = 'C' === $system ? self::BEIDOU_BEHIND : 0.0;
        [$y, $mo, $d, $h, $mi, $s] = ObservationWriter::civil($e->clockTime->plus(-$behind));
        $week = $e->orbitTime->plus(-$behind)->week - ('C' === $system ? self::BEIDOU_WEEK : 0);
        $health = $e->healthy ? 0.0 : 1.0;
        $rows = [
            [$e->clockBias, $e->clockDrift, $e->clockDriftRate], [0.0, $e->crs, $e->meanMotionDifference, $e->meanAnomaly],
            [$e->cuc, $e->eccentricity, $e->cus, $e->sqrtA], [$e->secondsOfWeek, $e->cic, $e->node, $e->cis],
            [$e->inclination, $e->crc, $e->perigee, $e->nodeRate],
            [$e->inclinationRate, 'E' === $system ? 513.0 : 0.0, (float) $week, 0.0],
            [0.0, $health, $e->groupDelay, 'E' === $system ? $e->groupDelay : 0.0], [$e->secondsOfWeek, 0.0, 0.0, 0.0],
        ];
        $text = '';
        foreach ($rows as $k => $row) {
            $line = match (true) {
                $k > 0 => $isShort ? '   ' : '    ',
                $isShort => \sprintf('%2d %02d %2d %2d %2d %2d%5.1F', (int) substr($e->satellite, 1), $y % 100, $mo, $d, $h, $mi, $s),
                default => \sprintf('%s %04d %02d %02d %02d %02d %02d', $e->satellite, $y, $mo, $d, $h, $mi, (int) round($s)),
            };
            foreach ($row as $value) {
                $line .= self::number($value);
            }
            $text .= $line."\n";
        }

        return $text;
    }

    /** As D19.12 of the documents. */
    private static function number(float $value): string
    {
        $text = \sprintf('%.12E', $value);
        $text = (string) preg_replace_callback(
            '/E([+-])(\d+)$/', static fn (array $m): string => \sprintf('D%s%02d', $m[1], (int) $m[2]), $text,
        );

        return str_pad($text, 19, ' ', \STR_PAD_LEFT);
    }

    private static function head(string $text, string $label): string
    {
        return rtrim(\sprintf('%-60.60s%s', $text, $label))."\n";
    }
}
