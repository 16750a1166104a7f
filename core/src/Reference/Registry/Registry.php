<?php

declare(strict_types=1);

namespace Mensura\Reference\Registry;

use Mensura\Geodesy\Ellipsoid;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\Conversion;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\UnknownSystem;
use Mensura\Reference\UnsupportedMethod;

/**
 * Coordinate reference systems of the EPSG registry, read from the SQLite file proj.db (layout 1.x) that Debian's
 * proj-data installs. Read only; every system asked for is kept.
 */
final class Registry
{
    /** Where Debian's proj-data puts the registry. */
    public const INSTALLED = '/usr/share/proj/proj.db';

    /** @var array<string, HorizontalSystem> */
    private array $horizontal = [];

    /** @var array<string, VerticalSystem> */
    private array $vertical = [];

    public function __construct(public readonly \PDO $db)
    {
        $db->setAttribute(\PDO::ATTR_ERRMODE, \PDO::ERRMODE_EXCEPTION);
        $db->setAttribute(\PDO::ATTR_DEFAULT_FETCH_MODE, \PDO::FETCH_ASSOC);
    }

    /** @throws UnknownSystem when there is no registry at the path */
    public static function open(string $path = self::INSTALLED): self
    {
        if (!class_exists(\PDO::class) || !\in_array('sqlite', \PDO::getAvailableDrivers(), true)) {
            throw new UnknownSystem('the coordinate system registry needs PHP\'s SQLite extension; run bin/mensura setup');
        }
        if (!is_file($path)) {
            throw new UnknownSystem(
                'the coordinate system registry (proj.db of the package proj-data) is not installed; run bin/mensura setup',
            );
        }

        return new self(new \PDO('sqlite:'.$path, null, null, [\PDO::SQLITE_ATTR_OPEN_FLAGS => \PDO::SQLITE_OPEN_READONLY]));
    }

    /** Version of the EPSG data set, "v10.076". */
    public function version(): string
    {
        return (string) ($this->value("SELECT value FROM metadata WHERE key = 'EPSG.VERSION'") ?? '');
    }

    /**
     * "EPSG:n" or "EPSG:h+EPSG:v".
     *
     * @throws UnknownSystem
     * @throws UnsupportedMethod
     */
    public function system(string $text): CoordinateSystem
    {
        if (1 !== preg_match('/^EPSG:(\d{1,9})(?:\+(?:EPSG:)?(\d{1,9}))?$/i', trim($text), $match)) {
            throw new UnknownSystem(\sprintf('"%s" is not a code such as EPSG:25830, nor EPSG:25830+EPSG:5773', $text));
        }
        if (isset($match[2])) {
            $first = 'EPSG:'.$match[1];
            $second = 'EPSG:'.$match[2];
            if ($this->isVertical($first)) {
                throw new UnknownSystem(\sprintf('%s is a height system; in EPSG:h+EPSG:v the horizontal system comes first', $first));
            }
            if (!$this->isVertical($second)) {
                throw new UnknownSystem(\sprintf('%s is not a height system; in EPSG:h+EPSG:v the second must be one', $second));
            }

            return new CoordinateSystem($this->horizontalSystem($first), $this->verticalSystem($second));
        }
        $code = 'EPSG:'.$match[1];
        $compound = $this->row(
            'SELECT name, horiz_crs_auth_name h, horiz_crs_code hc, vertical_crs_auth_name v, vertical_crs_code vc FROM '
                .'compound_crs WHERE auth_name = ? AND code = ?',
            self::split($code),
        );
        if (null !== $compound) {
            return new CoordinateSystem(
                $this->horizontalSystem($compound['h'].':'.$compound['hc']),
                $this->verticalSystem($compound['v'].':'.$compound['vc']), (string) $compound['name'], $code,
            );
        }
        if ($this->isVertical($code)) {
            throw new UnknownSystem(\sprintf('%s is a height system; name it after a horizontal one, as in EPSG:25830+%s', $code, $code));
        }

        return new CoordinateSystem($this->horizontalSystem($code));
    }

    public function isVertical(string $code): bool
    {
        return null !== $this->value('SELECT 1 FROM vertical_crs WHERE auth_name = ? AND code = ?', self::split($code));
    }

    /**
     * @throws UnknownSystem
     * @throws UnsupportedMethod
     */
    public function horizontalSystem(string $code): HorizontalSystem
    {
        return $this->horizontal[$code] ??= $this->readHorizontal($code);
    }

    /** @throws UnknownSystem */
    public function verticalSystem(string $code): VerticalSystem
    {
        return $this->vertical[$code] ??= $this->readVertical($code);
    }

    public function datum(string $code): Datum
    {
        $row = $this->row(
            'SELECT d.*, m.name pm_name, m.longitude pm, m.uom_code pm_unit FROM geodetic_datum d JOIN prime_meridian m '
                .'ON m.auth_name = d.prime_meridian_auth_name AND m.code = d.prime_meridian_code WHERE d.auth_name = ? AND d.code = ?',
            self::split($code),
        )
            ?? throw new UnknownSystem(\sprintf('datum %s is not in the registry', $code));
        $members = [];
        if (null !== $row['ensemble_accuracy']) {
            foreach ($this->rows(
                'SELECT member_auth_name a, member_code c FROM geodetic_datum_ensemble_member WHERE ensemble_auth_name = '
                    .'? AND ensemble_code = ? ORDER BY sequence',
                self::split($code),
            ) as $member) {
                $members[] = $member['a'].':'.$member['c'];
            }
        }

        return new Datum(
            $code, (string) $row['name'], $this->ellipsoid($row['ellipsoid_auth_name'].':'.$row['ellipsoid_code']),
            round(rad2deg($this->angle((float) $row['pm'], (int) $row['pm_unit'])), 12), (string) $row['pm_name'],
            $members, self::number($row['ensemble_accuracy']), self::number($row['frame_reference_epoch']),
        );
    }

    public function ellipsoid(string $code): Ellipsoid
    {
        $row = $this->row('SELECT * FROM ellipsoid WHERE auth_name = ? AND code = ?', self::split($code))
            ?? throw new UnknownSystem(\sprintf('ellipsoid %s is not in the registry', $code));
        $a = (float) $row['semi_major_axis'] * $this->unit((int) $row['uom_code'])[0];
        $inverse = (float) ($row['inv_flattening'] ?? 0.0);
        if (0.0 === $inverse) {
            $b = (float) ($row['semi_minor_axis'] ?? $row['semi_major_axis']);
            $inverse = $b === (float) $row['semi_major_axis']
                ? \INF
                : (float) $row['semi_major_axis'] / ((float) $row['semi_major_axis'] - $b);
        }

        return new Ellipsoid((string) $row['name'], $a, $inverse);
    }

    /** @return array{float, string} factor to metres, radians or unity; name */
    public function unit(int $code): array
    {
        static $kept = [];
        if (!isset($kept[$code])) {
            $row = $this->row("SELECT name, conv_factor FROM unit_of_measure WHERE auth_name = 'EPSG' AND code = ?", [$code])
                ?? throw new UnknownSystem(\sprintf('unit EPSG:%d is not in the registry', $code));
            $factor = match ($code) {
                // The registry prints fifteen digits; these two are defined exactly.
                9003 => 1200.0 / 3937.0,
                9102 => \M_PI / 180.0,
                9104 => \M_PI / 648000.0,
                9105 => \M_PI / 200.0,
                default => (float) $row['conv_factor'],
            };
            $kept[$code] = [$factor, (string) $row['name']];
        }

        return $kept[$code];
    }

    /** Radians of an angle in an EPSG unit, the sexagesimal ones included. */
    public function angle(float $value, int $unit): float
    {
        if (9110 === $unit || 9111 === $unit) {
            $sign = $value < 0.0 ? -1.0 : 1.0;
            // Decimal digits are the minutes and seconds themselves: read them off the printed number.
            $text = number_format(abs($value), 12, '.', '');
            [$degrees, $rest] = explode('.', $text);
            $minutes = (int) substr($rest, 0, 2);
            $seconds = 9110 === $unit ? (float) (substr($rest, 2, 2).'.'.substr($rest, 4)) : 60.0 * (float) ('0.'.substr($rest, 2));

            return $sign * deg2rad((int) $degrees + $minutes / 60.0 + $seconds / 3600.0);
        }

        return $value * $this->unit($unit)[0];
    }

    /** The area of use of an object; the widest when several are given. */
    public function area(string $table, string $code): ?Area
    {
        $best = null;
        foreach ($this->rows(
            'SELECT e.description d, e.south_lat s, e.west_lon w, e.north_lat n, e.east_lon e FROM usage u JOIN extent e '
                .'ON e.auth_name = u.extent_auth_name AND e.code = u.extent_code WHERE u.object_table_name = ? AND '
                    .'u.object_auth_name = ? AND u.object_code = ?',
            [$table, ...self::split($code)],
        ) as $row) {
            if (null === $row['s']) {
                continue;
            }
            $area = new Area((float) $row['s'], (float) $row['w'], (float) $row['n'], (float) $row['e'], (string) $row['d']);
            if (null === $best || $area->size() > $best->size()) {
                $best = $area;
            }
        }

        return $best;
    }

    /**
     * @param list<int|string|float|null> $parameters
     *
     * @return list<array<string, int|float|string|null>>
     */
    public function rows(string $sql, array $parameters = []): array
    {
        $statement = $this->db->prepare($sql);
        $statement->execute($parameters);

        /** @var list<array<string, int|float|string|null>> $rows */
        $rows = $statement->fetchAll();

        return $rows;
    }

    /**
     * @param list<int|string|float|null> $parameters
     *
     * @return ?array<string, int|float|string|null>
     */
    public function row(string $sql, array $parameters = []): ?array
    {
        return $this->rows($sql, $parameters)[0] ?? null;
    }

    /** @return array{string, string} authority, code */
    public static function split(string $code): array
    {
        [$authority, $number] = explode(':', $code, 2) + [1 => ''];

        return [$authority, $number];
    }

    private function readHorizontal(string $code): HorizontalSystem
    {
        $key = self::split($code);
        $geodetic = $this->row('SELECT * FROM geodetic_crs WHERE auth_name = ? AND code = ?', $key);
        if (null !== $geodetic) {
            $kind = 'geocentric' === $geodetic['type'] ? HorizontalSystem::GEOCENTRIC : HorizontalSystem::GEOGRAPHIC;
            if (null === $geodetic['datum_code']) {
                throw new UnsupportedMethod(\sprintf('%s is defined by a text that is not read here', $code));
            }

            return new HorizontalSystem(
                $kind, $code, (string) $geodetic['name'], $this->datum($geodetic['datum_auth_name'].':'.$geodetic['datum_code']), $code,
                'geographic 2D' === $geodetic['type'] ? 2 : 3,
                axes: $this->axes((string) $geodetic['coordinate_system_auth_name'], (string) $geodetic['coordinate_system_code'])[0],
                unitName: HorizontalSystem::GEOCENTRIC === $kind ? 'metre' : 'degree',
                area: $this->area('geodetic_crs', $code), deprecated: (bool) $geodetic['deprecated'],
                successor: $this->successor('geodetic_crs', $code),
                geodeticName: (string) $geodetic['name'],
            );
        }
        $row = $this->row('SELECT * FROM projected_crs WHERE auth_name = ? AND code = ?', $key)
            ?? throw new UnknownSystem(\sprintf('%s is not in the registry (EPSG data set %s)', $code, $this->version()));
        if (null === $row['conversion_code'] || null === $row['geodetic_crs_code']) {
            throw new UnsupportedMethod(\sprintf('%s is defined by a text that is not read here', $code));
        }
        $base = $this->horizontalSystem($row['geodetic_crs_auth_name'].':'.$row['geodetic_crs_code']);
        $conversion = $this->conversion($row['conversion_auth_name'].':'.$row['conversion_code']);
        [$axes, $unit] = $this->axes((string) $row['coordinate_system_auth_name'], (string) $row['coordinate_system_code']);
        [$factor, $unitName] = $this->unit($unit);
        try {
            $projection = Methods::projection($conversion, $base->ellipsoid());
        } catch (UnsupportedMethod $e) {
            throw new UnsupportedMethod(\sprintf('%s (%s): %s', $code, $row['name'], $e->getMessage()));
        }

        return new HorizontalSystem(
            HorizontalSystem::PROJECTED, $code, (string) $row['name'], $base->datum, $base->code, 2, $conversion,
            $projection, $factor, $unitName, $axes,
            $this->area('projected_crs', $code), (bool) $row['deprecated'], $this->successor('projected_crs', $code),
            geodeticName: $base->name,
        );
    }

    private function conversion(string $code): Conversion
    {
        $row = $this->row('SELECT * FROM conversion WHERE auth_name = ? AND code = ?', self::split($code))
            ?? throw new UnknownSystem(\sprintf('conversion %s is not in the registry', $code));
        $values = [];
        for ($i = 1; $i <= 7; ++$i) {
            $parameter = $row["param{$i}_code"];
            if (null === $parameter) {
                break;
            }
            $unit = (int) $row["param{$i}_uom_code"];
            $value = (float) $row["param{$i}_value"];
            $values[(int) $parameter] = \in_array((int) $parameter, [...Methods::LENGTHS, ...Methods::SCALES], true)
                ? $value * $this->unit($unit)[0]
                : $this->angle($value, $unit);
        }

        return new Conversion((int) $row['method_code'], $values, (string) $row['method_name']);
    }

    /** @return array{list<Axis>, int} axes in the registry's order, unit code of the first */
    private function axes(string $authority, string $code): array
    {
        $axes = [];
        $unit = 9001;
        foreach ($this->rows(
            'SELECT abbrev, orientation, uom_code FROM axis WHERE coordinate_system_auth_name = ? AND '
                .'coordinate_system_code = ? ORDER BY coordinate_system_order',
            [$authority, $code],
        ) as $i => $row) {
            $axes[] = new Axis((string) $row['abbrev'], strtolower((string) $row['orientation']));
            $unit = 0 === $i ? (int) $row['uom_code'] : $unit;
        }

        return [$axes, $unit];
    }

    private function readVertical(string $code): VerticalSystem
    {
        $row = $this->row(
            'SELECT v.*, d.name datum_name FROM vertical_crs v LEFT JOIN vertical_datum d ON d.auth_name = '
                .'v.datum_auth_name AND d.code = v.datum_code WHERE v.auth_name = ? AND v.code = ?',
            self::split($code),
        )
            ?? throw new UnknownSystem(\sprintf('%s is not a height system of the registry', $code));
        [$axes, $unit] = $this->axes((string) $row['coordinate_system_auth_name'], (string) $row['coordinate_system_code']);
        [$factor, $name] = $this->unit($unit);

        return new VerticalSystem(
            $code, (string) $row['name'], $row['datum_auth_name'].':'.$row['datum_code'], (string) $row['datum_name'],
            $factor, $name, 'down' === (isset($axes[0]) ? $axes[0]->direction : 'up'),
            $this->area('vertical_crs', $code), (bool) $row['deprecated'], $this->successor('vertical_crs', $code),
        );
    }

    private function successor(string $table, string $code): ?string
    {
        $row = $this->row(
            'SELECT replacement_auth_name a, replacement_code c FROM deprecation WHERE table_name = ? AND '
                .'deprecated_auth_name = ? AND deprecated_code = ?',
            [$table, ...self::split($code)],
        )
            ?? $this->row(
                'SELECT replacement_auth_name a, replacement_code c FROM supersession WHERE superseded_table_name = ? '
                    .'AND superseded_auth_name = ? AND superseded_code = ?',
                [$table, ...self::split($code)],
            );

        return null === $row ? null : $row['a'].':'.$row['c'];
    }

    /** @param list<int|string|float|null> $parameters */
    private function value(string $sql, array $parameters = []): mixed
    {
        $row = $this->row($sql, $parameters);

        return null === $row ? null : reset($row);
    }

    private static function number(mixed $value): ?float
    {
        return null === $value ? null : (float) $value;
    }
}
