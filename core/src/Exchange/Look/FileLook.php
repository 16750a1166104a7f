<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Isg;
use Mensura\Reference\Grid\Ntv2Grid;
use Mensura\Reference\Grid\UnreadableGrid;

/**
 * What a file is and what it holds: told by its contents, not by its ending. Only the file and those that belong to it are opened;
 * nothing is written.
 */
final class FileLook
{
    private const HEAD = 8192;
    /** Whole files that are taken up at once: tables of GNSS data and grids. */
    private const LARGEST_WHOLE = 120_000_000;
    private const WKT = '/^\s*(?:PROJCRS|PROJCS|PROJECTEDCRS|GEOGCRS|GEOGCS|GEOGRAPHICCRS|GEODCRS|GEODETICCRS|GEOCCS|COMPOUNDCRS|COMPD_CS'
        .'|VERTCRS|VERT_CS|VERTICALCRS|BOUNDCRS|ENGCRS|LOCAL_CS|COORDINATEOPERATION|DERIVEDPROJCRS)\s*[\[(]/i';
    private const DXF = '/^(?:\xEF\xBB\xBF)?\s*(?:999\s*\R[^\n]*\R\s*)*0\s*\R\s*SECTION\s*\R/';

    /**
     * @param string $name for messages
     * @param ?Tap   $tap  is given the rows of a table, the records of a drawing
     *
     * @throws UnusableInput where the file is damaged or may not be read
     */
    public static function of(string $path, string $name, ?Tap $tap = null): Looked
    {
        if (!is_file($path)) {
            throw new UnusableInput($name, is_dir($path) ? 'is a folder; name one file' : 'cannot be read; is the path right?');
        }
        $head = @file_get_contents($path, length: self::HEAD);
        if (false === $head) {
            throw new UnusableInput($name, 'cannot be read');
        }
        $systems = new Systems();
        $l = new Looked('unknown');
        try {
            self::binary($l, $path, $head, $systems, $name) || self::text($l, $path, $head, $systems, $name, $tap);
        } catch (UnreadableGrid $e) {
            throw new UnusableInput($name, $e->getMessage());
        } catch (UnusableInput $e) {
            throw new UnusableInput(str_contains($e->where, $name) ? $e->where : trim($name.' '.$e->where), mb_scrub($e->reason, 'UTF-8'));
        }

        return $l;
    }

    private static function binary(Looked $l, string $path, string $head, Systems $systems, string $name): bool
    {
        $base = pathinfo($name, \PATHINFO_FILENAME);
        switch (true) {
            case str_starts_with($head, 'LASF'):
                $l->kind = 'las';
                LasLook::read($l, $path, $systems, $name);

                return true;
            case str_starts_with($head, 'ASTM-E57'):
                $l->kind = 'e57';
                E57Look::read($l, $path, $systems, $name);

                return true;
            case str_starts_with($head, "SQLite format 3\0"):
                $l->kind = 'geopackage';
                GeoPackageLook::read($l, $path, $systems, $name);

                return true;
            case str_starts_with($head, "PK\x03\x04") || str_starts_with($head, "PK\x05\x06"):
                ZipLook::read($l, $path, $systems, $name);

                return true;
            case \in_array(substr($head, 0, 4), ["II*\0", "MM\0*", "II+\0", "MM\0+"], true):
                $l->kind = 'geotiff';
                TiffLook::read($l, $path, $systems, $name);

                return true;
            case 1 === preg_match('/^ply\s/', $head):
                $l->kind = 'ply';
                PlyLook::read($l, self::open($path, $name), $name);

                return true;
            case str_starts_with($head, "\0\0\x27\x0A") && \strlen($head) >= 36:
                $l->kind = 'shapefile';
                $companion = static function (string $ending) use ($path): ?string {
                    foreach ([$ending, strtoupper($ending)] as $e) {
                        $beside = (string) preg_replace('/\.[^.\/]*$/', '', $path).'.'.$e;
                        if (is_file($beside)) {
                            // Of the table only the heading is looked at.
                            return (string) file_get_contents($beside, length: 64 << 20);
                        }
                    }

                    return null;
                };
                ShapefileLook::read($l, self::open($path, $name), (int) filesize($path), $base, $companion, $systems, $name);

                return true;
            case str_contains(substr($head, 0, 22), ' Binary DXF'):
                throw new UnusableInput($name, 'is a binary DXF; write it as ASCII DXF');
            case str_starts_with($head, 'NUM_OREC'):
                $l->kind = 'ntv2';
                $grid = new Ntv2Grid($name, self::whole($path, $name));
                [$south, $west, $north, $east] = $grid->area()->bounds();
                $l->reach($west, $south);
                $l->reach($east, $north);
                $l->unit = 'degree';

                return true;
        }
        if (\strlen($head) >= 40) {
            ['rows' => $rows, 'columns' => $columns] = (array) unpack('Nrows/Ncolumns', $head, 32);
            if ($rows > 1 && $columns > 1 && $rows < 100_000 && $columns < 100_000 && (int) filesize($path) === 40 + 4 * $rows * $columns) {
                $l->kind = 'gtx';
                self::grid($l, Gtx::read($name, self::whole($path, $name)));

                return true;
            }
        }

        return false;
    }

    private static function text(Looked $l, string $path, string $head, Systems $systems, string $name, ?Tap $tap): bool
    {
        $plain = ltrim(self::plain($head), " \t\r\n");
        $base = pathinfo($name, \PATHINFO_FILENAME);
        if (str_starts_with($plain, '<')) {
            $bare = (string) preg_replace('/<!--.*?-->/s', '', $plain);
            $root = 1 === preg_match('/<(?![?!])(?:[\w.-]+:)?([\w.-]+)/', $bare, $m) ? strtolower($m[1]) : '';
            $l->kind = \in_array($root, ['landxml', 'kml', 'gpx'], true) ? $root : 'unknown';
            match ($l->kind) {
                'landxml' => LandXmlLook::read($l, $path, $systems, $name), 'kml' => KmlLook::read($l, $path, $name),
                'gpx' => GpxLook::read($l, $path, $name), default => Xml::walk($path, $name, null),
            };

            return true;
        }
        if (str_starts_with($plain, '{') || 1 === preg_match('/^\[\s*[{\[\]"\d-]/', $plain)) {
            $l->kind = 'geojson';
            GeoJsonLook::read($l, $path, $base, $systems, $name);

            return true;
        }
        if (1 === preg_match(self::DXF, $head)) {
            $l->kind = 'dxf';
            DxfLook::read($l, self::open($path, $name), $name, $tap);

            return true;
        }
        if (1 === preg_match('/^.{60}RINEX VERSION \/ TYPE/m', substr($head, 0, 400))) {
            $type = strtoupper(substr($head, 20, 1));
            $l->kind = 'O' === $type ? 'rinex-observation' : 'rinex-navigation';
            self::rinex($l, $path, $type, $name);

            return true;
        }
        if (1 === preg_match('/^#[abcd][PV]\d{4}/', $plain)) {
            $l->kind = 'sp3';
            if (!str_contains((string) substr(self::tail($path), -200), 'EOF')) {
                $l->warn('it does not end with EOF: it may be cut off');
            }

            return true;
        }
        if (1 === preg_match('/^\s*(?:[^\n]*\n){0,40}?\s*begin_of_head/', $plain)) {
            $l->kind = 'isg';
            self::grid($l, Isg::read($name, self::whole($path, $name)));

            return true;
        }
        if (1 === preg_match(self::WKT, $plain)) {
            $l->kind = 'wkt';
            $systems->fromWkt($l, (string) file_get_contents($path, length: 1 << 20));

            return true;
        }
        if (NmeaLook::isOne($plain)) {
            $l->kind = 'nmea';
            NmeaLook::read($l, self::open($path, $name));

            return true;
        }

        return TableLook::read($l, $path, $name, $tap) || self::nothing($l);
    }

    private static function nothing(Looked $l): bool
    {
        $l->kind = 'unknown';

        return true;
    }

    private static function rinex(Looked $l, string $path, string $type, string $name): void
    {
        if ('O' === $type) {
            $file = ObservationReader::read(self::whole($path, $name), $name);
            foreach ($file->warnings as $warning) {
                $l->warn($warning);
            }

            return;
        }
        NavigationReader::read(self::whole($path, $name), $name);
    }

    private static function grid(Looked $l, GeoidGrid $grid): void
    {
        $l->unit = 'degree';
        $l->count(Looked::POINT, $grid->rows * $grid->columns);
        $l->reach($grid->west, $grid->south);
        $l->reach($grid->east(), $grid->north());
    }

    /** The beginning of a text in Unicode. */
    private static function plain(string $head): string
    {
        foreach (["\xFF\xFE" => 'UTF-16LE', "\xFE\xFF" => 'UTF-16BE'] as $mark => $encoding) {
            if (str_starts_with($head, $mark)) {
                return mb_convert_encoding(substr($head, 2, 2 * intdiv(\strlen($head) - 2, 2)), 'UTF-8', $encoding);
            }
        }

        return str_starts_with($head, "\xEF\xBB\xBF") ? substr($head, 3) : $head;
    }

    /** @return resource */
    private static function open(string $path, string $name)
    {
        return @fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
    }

    private static function whole(string $path, string $name): string
    {
        if ((int) filesize($path) > self::LARGEST_WHOLE) {
            $words = 'is larger than the %d MB that are looked at in one piece';
            throw new UnusableInput($name, \sprintf($words, intdiv(self::LARGEST_WHOLE, 1_000_000)));
        }

        return (string) file_get_contents($path);
    }

    private static function tail(string $path): string
    {
        $size = (int) filesize($path);

        return (string) file_get_contents($path, offset: max(0, $size - 400));
    }
}
