<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\Wkb;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\Wkt1Writer;
use Mensura\Reference\Text\WktWriter;

/** GeoPackages 1.2 (OGC 12-128r14): a table a layer and kind of geometry. */
final class GeoPackageWriter implements FeatureWriter
{
    private const APPLICATION = 0x47504B47;
    private const VERSION = 10200;
    private const UNKNOWN = -1;
    private const TYPES = [
        Feature::POINT => 'POINT', Feature::LINE => 'LINESTRING', Feature::POLYGON => 'POLYGON', Feature::FACE => 'POLYGON',
    ];

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $db = new \PDO("sqlite:$path", null, null, [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
        $db->exec('PRAGMA journal_mode = OFF');
        $db->exec('PRAGMA application_id = '.self::APPLICATION);
        $db->exec('PRAGMA user_version = '.self::VERSION);
        $db->beginTransaction();
        $srs = self::frame($db, $set, $lost);
        $tables = [];
        foreach ($set->features as $f) {
            $tables[$f->layer."\0".self::TYPES[$f->kind]][] = $f;
            if (Feature::FACE === $f->kind) {
                $lost->count('faces, written as polygons');
            }
        }
        $kinds = array_count_values(array_map(static fn (string $k): string => explode("\0", $k)[0], array_keys($tables)));
        $taken = ['gpkg_contents', 'gpkg_spatial_ref_sys', 'gpkg_geometry_columns'];
        foreach ($tables as $key => $features) {
            [$layer, $type] = explode("\0", $key);
            $wanted = 1 === $kinds[$layer] ? $layer : $layer.' '.strtolower($type);
            $fit = static fn (string $n): string => 1 === preg_match('/^(gpkg_|rtree_|sqlite_)|^$/i', $n) ? "layer $n" : $n;
            $table = Plain::different([$wanted], $fit, 200, $taken)[$wanted];
            $taken[] = $table;
            if ($table !== $layer) {
                $lost->say(\sprintf('the layer name %s, written as %s', $layer, $table));
            }
            self::table($db, $table, $type, $features, $srs, $set->dated('Y-m-d\\TH:i:s.000\\Z'), $lost);
        }
        $db->commit();

        return $lost->all();
    }

    private static function frame(\PDO $db, FeatureSet $set, Lost $lost): int
    {
        $db->exec('CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER NOT NULL PRIMARY KEY, '
            .'organization TEXT NOT NULL, organization_coordsys_id INTEGER NOT NULL, definition TEXT NOT NULL, description TEXT)');
        $db->exec('CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL, identifier TEXT UNIQUE, '
            ."description TEXT DEFAULT '', last_change DATETIME NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ','now')), "
            .'min_x DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE, srs_id INTEGER, '
            .'FOREIGN KEY (srs_id) REFERENCES gpkg_spatial_ref_sys(srs_id))');
        $db->exec('CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL, '
            .'geometry_type_name TEXT NOT NULL, srs_id INTEGER NOT NULL, z TINYINT NOT NULL, m TINYINT NOT NULL, '
            .'PRIMARY KEY (table_name, column_name), UNIQUE (table_name), '
            .'FOREIGN KEY (table_name) REFERENCES gpkg_contents(table_name), '
            .'FOREIGN KEY (srs_id) REFERENCES gpkg_spatial_ref_sys(srs_id))');
        $put = $db->prepare('INSERT INTO gpkg_spatial_ref_sys VALUES (?, ?, ?, ?, ?, NULL)');
        $put->execute(['Undefined cartesian', -1, 'NONE', -1, 'undefined']);
        $put->execute(['Undefined geographic', 0, 'NONE', 0, 'undefined']);
        $wgs = Wkt1Writer::write(Registry::open()->system('EPSG:4326')->horizontal) ?? 'undefined';
        $put->execute(['WGS 84', 4326, 'EPSG', 4326, $wgs]);
        if (null === $set->crs) {
            $lost->say('its coordinate system is not known, and none is said');

            return $set->isGeographic() ? 0 : self::UNKNOWN;
        }
        $code = (int) substr($set->crs, 5);
        if (4326 !== $code) {
            $system = Registry::open()->system($set->crs);
            $text = Wkt1Writer::write($system->horizontal) ?? WktWriter::write($system);
            $put->execute([$system->name(), $code, 'EPSG', $code, $text]);
        }

        return $code;
    }

    /** @param list<Feature> $features */
    private static function table(\PDO $db, string $table, string $type, array $features, int $srs, string $at, Lost $lost): void
    {
        $of = new FeatureSet();
        $of->features = $features;
        $with = \count(array_filter($features, static fn (Feature $f): bool => $f->hasHeights()));
        // 1 all have heights, 2 some have.
        $z = 0 === $with ? 0 : ($with === \count($features) ? 1 : 2);
        $isMulti = [] !== array_filter($features, static fn (Feature $f): bool => \count($f->parts) > 1);
        $isMixed = $isMulti && [] !== array_filter($features, static fn (Feature $f): bool => 1 === \count($f->parts));
        $name = $isMixed ? 'GEOMETRY' : ($isMulti ? 'MULTI'.$type : $type);
        $columns = $of->properties();
        $named = Plain::different($columns, static fn (string $n): string => str_replace("\0", '', $n), 120, ['fid', 'geom']);
        $quote = static fn (string $n): string => '"'.str_replace('"', '""', $n).'"';
        $sql = '';
        foreach ($named as $column => $as) {
            if ((string) $column !== $as) {
                $lost->say(\sprintf('the property name %s, written as %s', $column, $as));
            }
            $sql .= ', '.$quote($as).' '.self::type($features, (string) $column);
        }
        $db->exec('CREATE TABLE '.$quote($table).' (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, geom '.$name.$sql.')');
        $marks = implode(',', array_fill(0, 1 + \count($columns), '?'));
        $into = implode(',', array_map($quote, ['geom', ...array_values($named)]));
        $put = $db->prepare('INSERT INTO '.$quote($table)." ($into) VALUES ($marks)");
        $box = [\INF, \INF, -\INF, -\INF];
        foreach ($features as $f) {
            $own = [\INF, \INF, -\INF, -\INF];
            foreach ($f->places() as [$x, $y]) {
                $own = [min($own[0], $x), min($own[1], $y), max($own[2], $x), max($own[3], $y)];
            }
            $box = [min($box[0], $own[0]), min($box[1], $own[1]), max($box[2], $own[2]), max($box[3], $own[3])];
            $isPoint = Feature::POINT === $f->kind && 1 === \count($f->parts);
            $envelope = $isPoint ? '' : pack('e4', $own[0], $own[2], $own[1], $own[3]);
            $head = 'GP'.pack('CCV', 0, $isPoint ? 1 : 3, $srs & 0xFFFFFFFF);
            $put->bindValue(1, $head.$envelope.Wkb::written($f, $f->hasHeights()), \PDO::PARAM_LOB);
            foreach ($columns as $k => $column) {
                $value = $f->properties[$column] ?? null;
                $put->bindValue(2 + $k, \is_float($value) ? Plain::number($value) : $value, match (true) {
                    null === $value => \PDO::PARAM_NULL, \is_int($value) => \PDO::PARAM_INT, \is_bool($value) => \PDO::PARAM_BOOL,
                    default => \PDO::PARAM_STR,
                });
            }
            $put->execute();
        }
        $bounds = array_map(static fn (float $v): ?float => is_finite($v) ? $v : null, $box);
        $columns = 'table_name, data_type, identifier, last_change, min_x, min_y, max_x, max_y, srs_id';
        $db->prepare("INSERT INTO gpkg_contents ($columns) VALUES (?,?,?,?,?,?,?,?,?)")
            ->execute([$table, 'features', $table, $at, ...$bounds, $srs]);
        $db->prepare('INSERT INTO gpkg_geometry_columns VALUES (?,?,?,?,?,0)')->execute([$table, 'geom', $name, $srs, $z]);
    }

    /** @param list<Feature> $features */
    private static function type(array $features, string $column): string
    {
        $types = [];
        foreach ($features as $f) {
            $value = $f->properties[$column] ?? null;
            if (null !== $value) {
                $types[get_debug_type($value)] = true;
            }
        }

        return match (array_keys($types)) {
            ['int'] => 'INTEGER', ['float'], ['int', 'float'], ['float', 'int'] => 'REAL', ['bool'] => 'BOOLEAN', default => 'TEXT',
        };
    }
}
