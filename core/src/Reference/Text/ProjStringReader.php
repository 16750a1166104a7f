<?php

declare(strict_types=1);

namespace Mensura\Reference\Text;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Operation\Binding;
use Mensura\Reference\Operation\Helmert;
use Mensura\Reference\OutsideProjection;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/**
 * Coordinate systems from PROJ strings ("+proj=tmerc +lat_0=... +ellps=GRS80 +units=m"), the plain notation many
 * programs share. False eastings are metres whatever the unit; angles decimal degrees or 12d30'15"E.
 */
final class ProjStringReader
{
    private const ELLIPSOIDS = [
        'GRS80' => [6378137.0, 298.257222101], 'WGS84' => [6378137.0, 298.257223563], 'WGS72' => [6378135.0, 298.26],
        'WGS66' => [6378145.0, 298.25],
        'GRS67' => [6378160.0, 298.2471674270], 'aust_SA' => [6378160.0, 298.25], 'intl' => [6378388.0, 297.0],
        'bessel' => [6377397.155, 299.1528128],
        'bess_nam' => [6377483.865, 299.1528128], 'airy' => [6377563.396, 299.3249646], 'mod_airy' => [6377340.189, 299.3249374],
        'clrk66' => [6378206.4, 294.978698213898], 'clrk80' => [6378249.145, 293.4663], 'clrk80ign' => [6378249.2, 293.4660212936269],
        'krass' => [6378245.0, 298.3], 'evrst30' => [6377276.345, 300.8017], 'evrst48' => [6377304.063, 300.8017],
        'evrst56' => [6377301.243, 300.8017],
        'evrst69' => [6377295.664, 300.8017], 'evrstSS' => [6377298.556, 300.8017], 'helmert' => [6378200.0, 298.3],
        'hough' => [6378270.0, 297.0],
        'andrae' => [6377104.43, 300.0], 'danish' => [6377019.2563, 300.0], 'IAU76' => [6378140.0, 298.257],
        'new_intl' => [6378157.5, 298.24961539], 'sphere' => [6370997.0, \INF],
    ];

    private const DATUMS = [
        'WGS84' => 6326, 'NAD83' => 6269, 'NAD27' => 6267, 'GGRS87' => 6121, 'potsdam' => 6314, 'carthage' => 6223,
        'hermannskogel' => 6312, 'ire65' => 6299, 'nzgd49' => 6272, 'OSGB36' => 6277,
    ];

    private const UNITS = [
        'm' => [1.0, 'metre'], 'km' => [1000.0, 'kilometre'], 'dm' => [0.1, 'decimetre'],
        'cm' => [0.01, 'centimetre'], 'mm' => [0.001, 'millimetre'],
        'ft' => [0.3048, 'foot'], 'us-ft' => [1200.0 / 3937.0, 'US survey foot'], 'yd' => [0.9144, 'yard'],
        'us-yd' => [3600.0 / 3937.0, 'US survey yard'],
        'ch' => [20.1168, 'chain'], 'us-ch' => [79200.0 / 3937.0, 'US survey chain'], 'link' => [0.201168, 'link'],
        'mi' => [1609.344, 'Statute mile'], 'kmi' => [1852.0, 'nautical mile'],
        'fath' => [1.8288, 'fathom'], 'ind-ft' => [0.30479841, 'Indian foot (1937)'], 'ind-yd' => [0.91439523, 'Indian yard (1937)'],
    ];

    private const MERIDIANS = [
        'greenwich' => 0.0, 'lisbon' => -9.131906111111, 'paris' => 2.337229166667, 'bogota' => -74.080916666667,
        'madrid' => -3.687938888889, 'rome' => 12.452333333333, 'bern' => 7.439583333333,
        'jakarta' => 106.807719444444, 'ferro' => -17.666666666667, 'brussels' => 4.367975,
        'stockholm' => 18.058277777778, 'athens' => 23.7163375, 'oslo' => 10.722916666667,
    ];

    private const KNOWN = [
        'proj', 'zone', 'south', 'lat_0', 'lon_0', 'lat_1', 'lat_2', 'lat_ts', 'lonc', 'alpha', 'gamma', 'k', 'k_0',
        'x_0', 'y_0', 'ellps', 'datum', 'a', 'b', 'rf', 'f', 'r', 'towgs84', 'nadgrids', 'geoidgrids', 'geoid_crs',
        'pm', 'units', 'to_meter', 'vunits', 'vto_meter', 'axis', 'no_uoff', 'no_off', 'uoff', 'no_defs', 'type',
        'wktext', 'over', 'approx', 'algo', 'init', 'title', 'h_0', 'czech', 'no_cut', 'hyperbolic',
    ];

    public function __construct(private readonly ?Registry $registry)
    {
    }

    /** @throws UnreadableSystem */
    public function read(string $text): CoordinateSystem
    {
        $p = self::parameters($text);
        if (isset($p['init']) && 1 === preg_match('/^epsg:(\d+)$/i', $p['init'], $match)) {
            if (null === $this->registry) {
                throw new UnreadableSystem('+init needs the registry');
            }

            return $this->registry->system('EPSG:'.$match[1]);
        }
        $proj = $p['proj'] ?? throw new UnreadableSystem('a PROJ string needs +proj');
        try {
            [$datum, $geodetic] = $this->datum($p);
            $binding = self::binding($p);
            $vertical = self::vertical($p);
            $title = $p['title'] ?? trim((string) preg_replace('/\s*\+(?:type|no_defs|wktext|title)\b(?:=\S*)?/', '', trim($text)));
            if (\in_array($proj, ['longlat', 'latlong', 'lonlat', 'latlon', 'geocent', 'cart'], true)) {
                $geocentric = \in_array($proj, ['geocent', 'cart'], true);

                return new CoordinateSystem(new HorizontalSystem(
                    $geocentric ? HorizontalSystem::GEOCENTRIC : HorizontalSystem::GEOGRAPHIC, null, $title, $datum,
                    $geodetic, $geocentric ? 3 : 2, unitName: $geocentric ? 'metre' : 'degree', binding: $binding,
                    geodeticName: $title,
                ), $vertical);
            }
            $conversion = self::conversion($proj, $p);
            [$unit, $unitName] = self::unit($p, 'to_meter', 'units');

            return new CoordinateSystem(new HorizontalSystem(
                HorizontalSystem::PROJECTED, null, $title, $datum, $geodetic, 2, $conversion,
                Methods::projection($conversion, $datum->ellipsoid), $unit, $unitName,
                self::axes($p['axis'] ?? 'enu'), binding: $binding,
            ), $vertical);
        } catch (OutsideProjection|UnsupportedMethod|UnknownSystem $e) {
            throw new UnreadableSystem('PROJ string: '.$e->getMessage(), 0, $e);
        } catch (\DomainException $e) {
            throw $e instanceof UnreadableSystem ? $e : new UnreadableSystem('PROJ string: '.$e->getMessage(), 0, $e);
        }
    }

    /** @return array<string, string> */
    private static function parameters(string $text): array
    {
        $p = [];
        foreach (preg_split('/\s+/', trim($text)) ?: [] as $word) {
            if ('' === $word) {
                continue;
            }
            [$name, $value] = explode('=', ltrim($word, '+'), 2) + [1 => ''];
            $name = 'R' === $name ? 'r' : strtolower($name);
            if ('step' === $name || 'pipeline' === $value) {
                throw new UnreadableSystem('a pipeline is an operation, not a coordinate system');
            }
            if (!\in_array($name, self::KNOWN, true)) {
                throw new UnreadableSystem(\sprintf('the PROJ parameter +%s is not known here', $name));
            }
            $p[$name] ??= $value;
        }

        return $p;
    }

    /**
     * @param array<string, string> $p
     *
     * @return array{Datum, ?string} datum, code of its geographic system
     */
    private function datum(array $p): array
    {
        [$meridian, $meridianName] = self::meridian($p['pm'] ?? '0');
        if (isset($p['datum'])) {
            $code = null;
            foreach (self::DATUMS as $name => $number) {
                if (0 === strcasecmp($name, $p['datum'])) {
                    $code = $number;
                }
            }
            if (null === $code || null === $this->registry) {
                throw new UnreadableSystem(\sprintf('+datum=%s is not known here', $p['datum']));
            }
            $d = $this->registry->datum('EPSG:'.$code);
            $row = $this->registry->row(
                "SELECT code c FROM geodetic_crs WHERE datum_auth_name = 'EPSG' AND datum_code = ? AND auth_name = "
                    ."'EPSG' AND type = 'geographic 2D' ORDER BY deprecated, code",
                [$code],
            );

            return [new Datum(
                $d->code, $d->name, $d->ellipsoid, 0.0 === $meridian ? $d->primeMeridian : $meridian, $meridianName,
                $d->members, $d->accuracy, $d->epoch,
            ), null === $row ? null : 'EPSG:'.$row['c']];
        }
        $ellipsoid = self::ellipsoid($p);

        return [new Datum(null, 'Unknown, on '.$ellipsoid->name, $ellipsoid, $meridian, $meridianName), null];
    }

    /** @param array<string, string> $p */
    private static function ellipsoid(array $p): Ellipsoid
    {
        if (isset($p['r'])) {
            return new Ellipsoid('sphere', self::number($p, 'r'), \INF);
        }
        if (isset($p['a'])) {
            $a = self::number($p, 'a');
            $inverse = match (true) {
                isset($p['rf']) => self::number($p, 'rf'),
                isset($p['f']) => 0.0 === self::number($p, 'f') ? \INF : 1.0 / self::number($p, 'f'),
                isset($p['b']) => self::number($p, 'b') === $a ? \INF : $a / ($a - self::number($p, 'b')),
                default => throw new UnreadableSystem('+a needs +b, +rf or +f beside it'),
            };

            return new Ellipsoid('an ellipsoid', $a, $inverse);
        }
        $name = $p['ellps'] ?? 'WGS84';
        foreach (self::ELLIPSOIDS as $known => [$a, $inverse]) {
            if (0 === strcasecmp($known, $name)) {
                return new Ellipsoid($known, $a, $inverse);
            }
        }

        throw new UnreadableSystem(\sprintf('+ellps=%s is not known here; give +a and +rf', $name));
    }

    /** @param array<string, string> $p */
    private static function binding(array $p): ?Binding
    {
        if (isset($p['towgs84'])) {
            $v = array_map('trim', explode(',', $p['towgs84']));
            foreach ($v as $value) {
                if (!is_numeric($value)) {
                    throw new UnreadableSystem(\sprintf('+towgs84=%s: "%s" is not a number', $p['towgs84'], $value));
                }
            }
            if (3 !== \count($v) && 7 !== \count($v)) {
                throw new UnreadableSystem(\sprintf('+towgs84 takes 3 or 7 numbers, not %d', \count($v)));
            }
            $v = array_map('floatval', $v) + array_fill(0, 7, 0.0);
            $s = \M_PI / 648000.0;

            return new Binding('EPSG:4326', Helmert::positionVector($v[0], $v[1], $v[2], $v[3] * $s, $v[4] * $s, $v[5] * $s, $v[6] * 1e-6));
        }
        if (isset($p['nadgrids'])) {
            return new Binding('EPSG:4326', null, array_values(array_filter(explode(',', $p['nadgrids']))));
        }

        return null;
    }

    /** @param array<string, string> $p */
    private static function vertical(array $p): ?VerticalSystem
    {
        if (!isset($p['geoidgrids'])) {
            return null;
        }
        [$unit, $name] = self::unit($p, 'vto_meter', 'vunits');

        return new VerticalSystem(
            null, 'heights above '.$p['geoidgrids'], null, 'geoid '.$p['geoidgrids'], $unit, $name,
            geoidGrid: ltrim(explode(',', $p['geoidgrids'])[0], '@'),
        );
    }

    /** @param array<string, string> $p */
    private static function conversion(string $proj, array $p): Conversion
    {
        $angle = static fn (
            string $name, float $default = 0.0,
        ): float => isset($p[$name]) ? deg2rad(self::angle($name, $p[$name])) : $default;
        $lat0 = $angle('lat_0');
        $lon0 = $angle('lon_0');
        $k = isset($p['k_0']) ? self::number($p, 'k_0') : (isset($p['k']) ? self::number($p, 'k') : 1.0);
        $x = isset($p['x_0']) ? self::number($p, 'x_0') : 0.0;
        $y = isset($p['y_0']) ? self::number($p, 'y_0') : 0.0;
        $natural = [8801 => $lat0, 8802 => $lon0, 8805 => $k, 8806 => $x, 8807 => $y];
        $plain = [8801 => $lat0, 8802 => $lon0, 8806 => $x, 8807 => $y];
        $conic = [8821 => $lat0, 8822 => $lon0, 8823 => $angle('lat_1'), 8824 => $angle('lat_2', $angle('lat_1')), 8826 => $x, 8827 => $y];
        switch ($proj) {
            case 'utm':
                $zone = (int) ($p['zone'] ?? 0);
                if ($zone < 1 || $zone > 60) {
                    throw new UnreadableSystem('+proj=utm needs +zone between 1 and 60');
                }

                return new Conversion(9807, [
                    8801 => 0.0, 8802 => deg2rad(6.0 * $zone - 183.0), 8805 => 0.9996, 8806 => 500000.0,
                    8807 => isset($p['south']) ? 10000000.0 : 0.0,
                ], \sprintf('UTM zone %d%s', $zone, isset($p['south']) ? 'S' : 'N'));
            case 'tmerc': case 'etmerc': return new Conversion(9807, $natural);
            case 'lcc':
                if (!isset($p['lat_2'])) {
                    if (!isset($p['lat_0']) || !isset($p['lat_1']) || abs($lat0 - $angle('lat_1')) < 1e-12) {
                        return new Conversion(9801, [8801 => isset($p['lat_1']) ? $angle('lat_1') : $lat0] + $natural);
                    }
                }
                if (!isset($p['lat_0']) && !isset($p['lat_2'])) {
                    $conic[8821] = $angle('lat_1');
                }

                return 1.0 === $k ? new Conversion(9802, $conic) : new Conversion(1051, $conic + [1038 => $k]);
            case 'aea': return new Conversion(9822, $conic);
            case 'laea': return new Conversion(9820, $plain);
            case 'cass': return new Conversion(isset($p['hyperbolic']) ? 9833 : 9806, $plain);
            case 'poly': return new Conversion(9818, $plain);
            case 'bonne': return new Conversion(9827, [8801 => $angle('lat_1', $lat0)] + $plain);
            case 'nzmg': return new Conversion(9811, [
                8801 => deg2rad(-41.0), 8802 => deg2rad(173.0), 8806 => isset($p['x_0']) ? $x : 2510000.0,
                8807 => isset($p['y_0']) ? $y : 6023150.0,
            ]);
            case 'ortho': return new Conversion(9840, $plain);
            case 'sterea': return new Conversion(9809, $natural);
            case 'stere':
                if (abs(abs($lat0) - \M_PI_2) > 1e-9) {
                    throw new UnreadableSystem('+proj=stere is read at a pole only; for an oblique one give +proj=sterea');
                }

                return isset($p['lat_ts']) && abs(abs($angle('lat_ts')) - \M_PI_2) > 1e-9
                    ? new Conversion(9829, [8832 => $angle('lat_ts'), 8833 => $lon0, 8806 => $x, 8807 => $y])
                    : new Conversion(9810, $natural);
            case 'merc': return isset($p['lat_ts'])
                ? new Conversion(9805, [8823 => $angle('lat_ts'), 8802 => $lon0, 8806 => $x, 8807 => $y])
                : new Conversion(9804, $natural);
            case 'webmerc': return new Conversion(1024, $plain);
            case 'cea': return new Conversion(9835, [8823 => $angle('lat_ts'), 8802 => $lon0, 8806 => $x, 8807 => $y]);
            case 'somerc': return new Conversion(
                9815,
                [8811 => $lat0, 8812 => $lon0, 8813 => \M_PI_2, 8814 => \M_PI_2, 8815 => $k, 8816 => $x, 8817 => $y],
            );
            case 'omerc':
                if (!isset($p['alpha'])) {
                    throw new UnreadableSystem('+proj=omerc is read with +lonc and +alpha only');
                }
                $alpha = $angle('alpha');
                $values = [8811 => $lat0, 8812 => $angle('lonc', $lon0), 8813 => $alpha, 8814 => $angle('gamma', $alpha), 8815 => $k];

                return isset($p['no_uoff']) || isset($p['no_off'])
                    ? new Conversion(9812, $values + [8806 => $x, 8807 => $y])
                    : new Conversion(9815, $values + [8816 => $x, 8817 => $y]);
            case 'krovak':
                return new Conversion(1041, [
                    8811 => isset($p['lat_0']) ? $lat0 : deg2rad(49.5),
                    8833 => isset($p['lon_0']) ? $lon0 : deg2rad(24.0 + 50.0 / 60.0),
                    1036 => isset($p['alpha']) ? $angle('alpha') : deg2rad(30.0 + 17.0 / 60.0 + 17.30311 / 3600.0),
                    8818 => deg2rad(78.5), 8819 => isset($p['k']) || isset($p['k_0']) ? $k : 0.9999, 8806 => -$x,
                    8807 => -$y,
                ]);
            case 'col_urban': return new Conversion(1052, $plain + [1039 => isset($p['h_0']) ? self::number($p, 'h_0') : 0.0]);
        }

        throw new UnreadableSystem(\sprintf('+proj=%s is not among the projections available', $proj));
    }

    /**
     * @param array<string, string> $p
     *
     * @return array{float, string}
     */
    private static function unit(array $p, string $factor, string $name): array
    {
        if (isset($p[$factor])) {
            [$over, $under] = explode('/', $p[$factor], 2) + [1 => '1'];
            if (!is_numeric($over) || !is_numeric($under) || (float) $over <= 0.0 || (float) $under <= 0.0) {
                throw new UnreadableSystem(\sprintf('+%s=%s is not a positive number', $factor, $p[$factor]));
            }
            $metres = (float) $over / (float) $under;
            foreach (self::UNITS as [$known, $label]) {
                if (abs($known - $metres) < 1e-12 * $known) {
                    return [$known, $label];
                }
            }

            return [$metres, 'unit of '.$metres.' m'];
        }

        return self::UNITS[$p[$name] ?? 'm']
            ?? throw new UnreadableSystem(\sprintf('+%s=%s is not a unit known here', $name, $p[$name] ?? ''));
    }

    /** @return array{float, string} degrees, name */
    private static function meridian(string $text): array
    {
        if (isset(self::MERIDIANS[strtolower($text)])) {
            return [self::MERIDIANS[strtolower($text)], ucfirst(strtolower($text))];
        }
        $degrees = self::angle('pm', $text);

        return [$degrees, 0.0 === $degrees ? 'Greenwich' : 'Meridian '.$text];
    }

    /** @param array<string, string> $p */
    private static function number(array $p, string $name): float
    {
        $value = $p[$name] ?? '';
        if (!is_numeric($value)) {
            throw new UnreadableSystem(\sprintf('+%s=%s is not a number', $name, $value));
        }

        return (float) $value;
    }

    private static function angle(string $name, string $text): float
    {
        if (is_numeric($text)) {
            return (float) $text;
        }
        if (1 === preg_match('/^([-+]?)(\d+(?:\.\d+)?)[dD](?:(\d+(?:\.\d+)?)\')?(?:(\d+(?:\.\d+)?)")?([NSEWnsew]?)$/', $text, $m)) {
            $value = (float) $m[2] + (float) $m[3] / 60.0 + (float) $m[4] / 3600.0;

            return '-' === $m[1] || \in_array(strtoupper($m[5]), ['S', 'W'], true) ? -$value : $value;
        }

        throw new UnreadableSystem(\sprintf('+%s=%s is not an angle (decimal degrees, or 12d30\'15"E)', $name, $text));
    }

    /** @return list<Axis> */
    private static function axes(string $letters): array
    {
        $axes = [];
        foreach (str_split(substr($letters, 0, 2)) as $letter) {
            $axes[] = match ($letter) {
                'e' => new Axis('E', 'east'), 'w' => new Axis('W', 'west'), 'n' => new Axis('N', 'north'), 's' => new Axis('S', 'south'),
                default => throw new UnreadableSystem(\sprintf('+axis=%s is not read', $letters)),
            };
        }

        return $axes;
    }
}
