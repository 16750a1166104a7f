<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** GeoPackages (OGC 12-128r18): layers of gpkg_contents, their columns, and the geometries in their header. */
final class GeoPackageLook
{
    private const ENVELOPES = [0, 32, 48, 48, 64];

    public static function read(Looked $l, string $path, Systems $systems, string $name): void
    {
        $head = (string) file_get_contents($path, length: 100);
        $page = (int) ((array) unpack('n', $head, 16))[1];
        $pages = (int) ((array) unpack('N', $head, 28))[1];
        $size = (int) filesize($path);
        $page = 1 === $page ? 65536 : $page;
        if ($page > 0 && $pages * $page > $size && substr($head, 24, 4) === substr($head, 92, 4)) {
            throw new UnusableInput($name, \sprintf('says %d pages of %d bytes and holds %d bytes: it is cut off', $pages, $page, $size));
        }
        try {
            // Opened so that nothing is written beside it.
            $address = 'sqlite:file:'.strtr(rawurlencode((string) realpath($path)), ['%2F' => '/']).'?mode=ro&immutable=1';
            $db = new \PDO($address, null, null, [
                \PDO::SQLITE_ATTR_OPEN_FLAGS => \PDO::SQLITE_OPEN_READONLY, \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                \PDO::ATTR_DEFAULT_FETCH_MODE => \PDO::FETCH_NUM,
            ]);
            self::layers($l, $db, $systems);
        } catch (\PDOException $e) {
            throw new UnusableInput($name, 'is damaged: '.trim((string) preg_replace('/^SQLSTATE\[\w+\]:? ?/', '', $e->getMessage())));
        }
    }

    private static function layers(Looked $l, \PDO $db, Systems $systems): void
    {
        if (0 === self::number($db, "SELECT count(*) FROM sqlite_master WHERE name = 'gpkg_contents'")) {
            $l->kind = 'unknown';

            return;
        }
        $systemOf = [];
        foreach ($db->query('SELECT table_name, data_type FROM gpkg_contents ORDER BY rowid') ?: [] as [$table, $type]) {
            $quoted = '"'.str_replace('"', '""', (string) $table).'"';
            $geometry = self::geometry($db, (string) $table);
            $key = [];
            $columns = [];
            foreach ($db->query("PRAGMA table_info($quoted)") ?: [] as [, $column, , , , $isKey]) {
                $columns[] = (string) $column;
                if ((int) $isKey > 0) {
                    $key[] = (string) $column;
                }
            }
            if ([] === $columns) {
                $l->warn(\sprintf('layer "%s" is listed and not there', $table));
                continue;
            }
            if (!\in_array($type, ['features', 'attributes'], true)) {
                $l->warn(\sprintf('layer "%s" holds %s, which is not counted', $table, $type));
                continue;
            }
            foreach (array_diff($columns, $key, [$geometry]) as $column) {
                $l->attribute($column);
            }
            $l->layer((string) $table, self::number($db, "SELECT count(*) FROM $quoted"));
            if ('features' !== $type || null === $geometry) {
                continue;
            }
            $systemOf[self::system($db, (string) $table)] = true;
            self::features($l, $db, $quoted, '"'.str_replace('"', '""', $geometry).'"', (string) $table);
        }
        unset($systemOf['']);
        if (1 === \count($systemOf)) {
            [$authority, $code, $wkt] = explode("\0", (string) array_key_first($systemOf), 3);
            if ('EPSG' === strtoupper($authority) && ctype_digit($code) && '0' !== $code) {
                $systems->fromCode($l, (int) $code);
            } else {
                $systems->fromWkt($l, \in_array($wkt, ['undefined', ''], true) ? '' : $wkt);
            }
        } elseif (\count($systemOf) > 1) {
            $l->warn('its layers are in different coordinate systems');
        }
    }

    private static function number(\PDO $db, string $sql): int
    {
        $query = $db->query($sql);

        return false === $query ? 0 : (int) $query->fetchColumn();
    }

    private static function geometry(\PDO $db, string $table): ?string
    {
        $query = $db->prepare('SELECT column_name FROM gpkg_geometry_columns WHERE table_name = ? COLLATE NOCASE');
        $query->execute([$table]);
        $column = $query->fetchColumn();

        return false === $column ? null : (string) $column;
    }

    private static function system(\PDO $db, string $table): string
    {
        $query = $db->prepare('SELECT s.organization, s.organization_coordsys_id, s.definition FROM gpkg_geometry_columns g '
            .'JOIN gpkg_spatial_ref_sys s ON s.srs_id = g.srs_id WHERE g.table_name = ? COLLATE NOCASE AND s.srs_id > 0');
        $query->execute([$table]);
        $row = $query->fetch();

        return \is_array($row) ? implode("\0", array_map(strval(...), $row)) : '';
    }

    private static function features(Looked $l, \PDO $db, string $table, string $column, string $name): void
    {
        foreach ($db->query("SELECT $column FROM $table WHERE $column IS NOT NULL") ?: [] as [$blob]) {
            try {
                if (!str_starts_with((string) $blob, 'GP') || \strlen((string) $blob) < 8) {
                    throw new \UnexpectedValueException('a geometry does not begin as one');
                }
                $flags = \ord($blob[3]);
                $envelope = self::ENVELOPES[($flags >> 1) & 7]
                    ?? throw new \UnexpectedValueException('the header of a geometry is not known');
                if (0 === ($flags & 16)) {
                    Geometry::wkb($l, (string) $blob, 8 + $envelope);
                }
            } catch (\UnexpectedValueException $e) {
                $l->warn(\sprintf('layer "%s": %s', $name, $e->getMessage()));
            }
        }
    }
}
