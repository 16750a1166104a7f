<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

/** The system a directory of GeoTIFF keys names (OGC 19-008r4, 7.5). */
final class TiffKeys
{
    private const MODEL = 1024;
    private const GEODETIC = 2048;
    private const PROJECTED = 3072;
    private const LINEAR_UNIT = 3076;
    private const UNITS = [9001 => 'metre', 9002 => 'foot', 9003 => 'US survey foot'];
    private const OWN = 32767;

    /** @param list<int> $keys the directory */
    public static function system(Looked $l, array $keys, Systems $systems): void
    {
        $values = [];
        foreach (\array_slice(array_chunk($keys, 4), 1) as $entry) {
            if (4 === \count($entry) && 0 === $entry[1]) {
                $values[$entry[0]] = $entry[3];
            }
        }
        $isGeographic = 2 === ($values[self::MODEL] ?? null);
        $code = ($isGeographic ? null : $values[self::PROJECTED] ?? null) ?? $values[self::GEODETIC] ?? 0;
        if ($code > 0 && self::OWN !== $code) {
            $systems->fromCode($l, $code);
        } elseif (isset(self::UNITS[$values[self::LINEAR_UNIT] ?? 0])) {
            $l->unit = self::UNITS[$values[self::LINEAR_UNIT]];
        }
    }
}
