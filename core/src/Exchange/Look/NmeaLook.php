<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** NMEA 0183 sentences: positions are GGA with a fix. Altitude above the geoid as the receiver states it. */
final class NmeaLook
{
    /** Quality indicator of GGA, as NMEA 0183 numbers it. */
    private const FIXES = [
        1 => 'GNSS', 2 => 'differential', 3 => 'PPS', 4 => 'RTK fixed', 5 => 'RTK float', 6 => 'dead reckoning', 7 => 'manual',
        8 => 'simulated',
    ];

    /**
     * @param resource $stream
     * @param ?\Closure(array{float, float, ?float}, array<string, string|int>): void $each is given every fix, and its time, the kind of
     *                                                                              fix and the satellites used
     */
    public static function read(Looked $l, $stream, ?\Closure $each = null): void
    {
        $l->crs = 'EPSG:4326';
        $l->unit = 'degree';
        $number = 0;
        $hasSums = false;
        while (false !== $line = fgets($stream, 4096)) {
            ++$number;
            if (1 !== preg_match('/\$([A-Z]{2}[A-Z]{3}),([^*\r\n]*)(?:\*([0-9A-Fa-f]{2}))?/', $line, $m)) {
                if ('' !== trim($line) && str_contains($line, '$')) {
                    $l->warn(\sprintf('line %d is no complete sentence', $number));
                }
                continue;
            }
            $hasSums = $hasSums || isset($m[3]);
            if (!isset($m[3]) && ($hasSums || !str_ends_with($line, "\n"))) {
                $l->warn(\sprintf('line %d has no checksum: it is cut off; it is not counted', $number));
                continue;
            }
            if (isset($m[3])) {
                $sum = 0;
                foreach (str_split("$m[1],$m[2]") as $c) {
                    $sum ^= \ord($c);
                }
                if ($sum !== hexdec($m[3])) {
                    $l->warn(\sprintf('line %d: its checksum is %02X, the sentence says %s; it is not counted', $number, $sum, $m[3]));
                    continue;
                }
            }
            $l->layer($m[1]);
            $f = explode(',', $m[2]);
            if (!str_ends_with($m[1], 'GGA') || !is_numeric($f[5] ?? null) || (int) $f[5] < 1) {
                continue;
            }
            $lat = self::degrees($f[1] ?? '', 2);
            $lon = self::degrees($f[3] ?? '', 3);
            if (null === $lat || null === $lon) {
                $l->warn(\sprintf('line %d has a fix and no position', $number));
                continue;
            }
            $l->count(Looked::POINT);
            $place = ['W' === $f[4] ? -$lon : $lon, 'S' === $f[2] ? -$lat : $lat, is_numeric($f[8] ?? null) ? (float) $f[8] : null];
            $l->reach(...$place);
            if (null !== $each) {
                $fix = self::FIXES[(int) $f[5]] ?? 'quality '.(int) $f[5];
                $sats = is_numeric($f[6] ?? null) ? ['satellites' => (int) $f[6]] : [];
                $each($place, ['time' => $f[0], 'fix' => $fix] + $sats);
            }
        }
    }

    /** Whether a text begins as sentences do. */
    public static function isOne(string $head): bool
    {
        return 1 === preg_match('/^(?:[^\n$]*\n)?\s*\$[A-Z]{2}(?:GGA|RMC|GSA|GSV|GLL|VTG|ZDA|GST|GNS|GBS|TXT|HDT),/', $head);
    }

    /** Degrees of "ddmm.mmmm". */
    private static function degrees(string $text, int $digits): ?float
    {
        return 1 === preg_match('/^\d{'.($digits + 2).'}(?:\.\d*)?$/', $text)
            ? (float) substr($text, 0, $digits) + (float) substr($text, $digits) / 60.0 : null;
    }
}
