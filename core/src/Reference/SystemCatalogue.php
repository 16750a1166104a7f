<?php

declare(strict_types=1);

namespace Mensura\Reference;

use Mensura\Geodesy\Ellipsoid;

/**
 * The coordinate reference systems known so far: the UTM families of ETRS89 (EPSG:25828 to 25838),
 * WGS 84 (EPSG:32601 to 32660, 32701 to 32760) and NAD83 (EPSG:26901 to 26923). Parameters from
 * EPSG Guidance Note 7-2, method 9807, and the definition of UTM.
 */
final class SystemCatalogue
{
    /** @throws UnknownSystem */
    public static function byCode(string $code): ProjectedSystem
    {
        if (1 !== preg_match('/^EPSG:(\d+)$/i', trim($code), $match)) {
            throw new UnknownSystem(\sprintf('"%s" is not a code such as EPSG:25830.', $code));
        }
        $number = (int) $match[1];
        [$datum, $ellipsoid, $zone, $south] = match (true) {
            $number >= 25828 && $number <= 25838 => ['ETRS89', Ellipsoid::grs80(), $number - 25800, false],
            $number >= 32601 && $number <= 32660 => ['WGS 84', Ellipsoid::wgs84(), $number - 32600, false],
            $number >= 32701 && $number <= 32760 => ['WGS 84', Ellipsoid::wgs84(), $number - 32700, true],
            $number >= 26901 && $number <= 26923 => ['NAD83', Ellipsoid::grs80(), $number - 26900, false],
            default => throw new UnknownSystem(\sprintf('%s is not among the systems available: UTM zones on ETRS89 (EPSG:25828-25838), WGS 84 (EPSG:32601-32660, 32701-32760) and NAD83 (EPSG:26901-26923).', strtoupper($code))),
        };
        $projection = new TransverseMercator($ellipsoid, 0.0, deg2rad(6.0 * $zone - 183.0), 0.9996, 500000.0, $south ? 10000000.0 : 0.0);

        return new ProjectedSystem('EPSG:'.$number, \sprintf('%s / UTM zone %d%s', $datum, $zone, $south ? 'S' : 'N'), $datum, $ellipsoid, $projection);
    }

    /** @return list<array{code: string, name: string}> */
    public static function all(): array
    {
        $list = [];
        foreach ([[25828, 25838], [32601, 32660], [32701, 32760], [26901, 26923]] as [$from, $to]) {
            for ($n = $from; $n <= $to; ++$n) {
                $system = self::byCode('EPSG:'.$n);
                $list[] = ['code' => $system->code, 'name' => $system->name];
            }
        }

        return $list;
    }
}
