<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Wkb;
use Mensura\Fault\UnusableInput;

/** Features of a GeoPackage (OGC 12-128r18), layer by layer. */
final class GeoPackageFeatures
{
    private const ENVELOPES = [0, 32, 48, 48, 64];

    /** @return list<string> what was left out */
    public static function read(FeatureSet $set, string $path, string $name): array
    {
        $left = [];
        try {
            $address = 'sqlite:file:'.strtr(rawurlencode((string) realpath($path)), ['%2F' => '/']).'?mode=ro&immutable=1';
            $db = new \PDO($address, null, null, [
                \PDO::SQLITE_ATTR_OPEN_FLAGS => \PDO::SQLITE_OPEN_READONLY, \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
            ]);
            $layers = $db->query('SELECT c.table_name, g.column_name FROM gpkg_contents c JOIN gpkg_geometry_columns g '
                ."ON g.table_name = c.table_name COLLATE NOCASE WHERE c.data_type = 'features' ORDER BY c.rowid");
            foreach (false === $layers ? [] : $layers->fetchAll(\PDO::FETCH_NUM) as [$table, $geometry]) {
                array_push($left, ...self::layer($set, $db, (string) $table, (string) $geometry));
            }
        } catch (\PDOException $e) {
            throw new UnusableInput($name, 'is damaged: '.trim((string) preg_replace('/^SQLSTATE\[\w+\]:? ?/', '', $e->getMessage())));
        }

        return $left;
    }

    /** @return list<string> */
    private static function layer(FeatureSet $set, \PDO $db, string $table, string $geometry): array
    {
        $quoted = '"'.str_replace('"', '""', $table).'"';
        $keys = $left = [];
        foreach ($db->query("PRAGMA table_info($quoted)") ?: [] as $column) {
            if ((int) $column['pk'] > 0) {
                $keys[] = (string) $column['name'];
            }
        }
        $rows = $db->query("SELECT * FROM $quoted");
        while (false !== $rows && \is_array($row = $rows->fetch(\PDO::FETCH_ASSOC))) {
            $blob = (string) ($row[$geometry] ?? '');
            unset($row[$geometry]);
            foreach ($keys as $key) {
                unset($row[$key]);
            }
            try {
                $shape = self::shape($blob);
                if (null === $shape) {
                    $left[] = \sprintf('a feature of layer "%s" without geometry', $table);
                    continue;
                }
                $properties = [];
                foreach ($row as $key => $value) {
                    $properties[(string) $key] = \is_string($value) ? mb_scrub($value, 'UTF-8') : $value;
                }
                $set->features[] = new Feature($shape[0], $table, $shape[1], $properties);
            } catch (\UnexpectedValueException $e) {
                $left[] = \sprintf('layer "%s": %s', $table, $e->getMessage());
            }
        }

        return array_values(array_unique($left));
    }

    /** @return ?array{string, list<list<list<array{float, float, ?float}>>>} */
    private static function shape(string $blob): ?array
    {
        if ('' === $blob) {
            return null;
        }
        if (!str_starts_with($blob, 'GP') || \strlen($blob) < 8) {
            throw new \UnexpectedValueException('a geometry does not begin as one');
        }
        $flags = \ord($blob[3]);
        $envelope = self::ENVELOPES[($flags >> 1) & 7] ?? throw new \UnexpectedValueException('the header of a geometry is not known');

        return 0 === ($flags & 16) ? Wkb::read($blob, 8 + $envelope) : null;
    }
}
