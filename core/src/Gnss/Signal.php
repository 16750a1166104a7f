<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** Carrier frequencies of the systems by band, hertz (interface documents of the systems; RINEX 3.05, table A1 and following). */
final class Signal
{
    public const LIGHT = 299792458.0;

    private const FREQUENCIES = [
        'G' => ['1' => 1575.42e6, '2' => 1227.60e6, '5' => 1176.45e6],
        'E' => ['1' => 1575.42e6, '5' => 1176.45e6, '7' => 1207.14e6, '8' => 1191.795e6, '6' => 1278.75e6],
        'C' => ['2' => 1561.098e6, '1' => 1575.42e6, '5' => 1176.45e6, '7' => 1207.14e6, '8' => 1191.795e6, '6' => 1268.52e6],
        'J' => ['1' => 1575.42e6, '2' => 1227.60e6, '5' => 1176.45e6, '6' => 1278.75e6],
    ];

    /** @return ?float hertz; null for a system whose frequencies are not one for all satellites, or a band it has not */
    public static function frequency(string $system, string $band): ?float
    {
        return self::FREQUENCIES[$system][$band] ?? null;
    }
}
